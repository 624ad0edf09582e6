<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Changes;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/**
 * Tells the database who writes, for what it logs by itself.
 */
final class Actor
{
    /**
     * From now on on this connection; changes up to the next call are one act.
     *
     * @param  ?string  $user null: the application itself
     */
    public static function is(?string $user): void
    {
        DB::select("select set_config('lucid.actor', ?, false), set_config('lucid.act', ?, false)", [
            $user ?? '',
            null === $user ? '' : (string) Str::uuid7(),
        ]);
    }

    /**
     * While something is done for somebody who is not there.
     *
     * @param  \Closure(): void  $do
     */
    public static function during(string $user, \Closure $do): void
    {
        self::is($user);
        try {
            $do();
        } finally {
            self::is(null);
        }
    }
}
