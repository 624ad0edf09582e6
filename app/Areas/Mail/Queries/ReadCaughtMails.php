<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Mail\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Mail\Data\CaughtMail;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Time\UtcTime;

/**
 * Reads the mails that were caught where none are sent.
 */
final class ReadCaughtMails
{
    /** So many are shown, the newest first. */
    private const MOST = 200;

    /**
     * They are of all projects: shown in the demo only, where nothing is real, and to those who lead something.
     */
    public function mayRead(User $user): bool
    {
        return (bool) config('lucid.demo') &&
            'catcher' === config('mail.default') &&
            DB::table('memberships')
                ->where('user_id', $user->id)
                ->whereIn('role', ['lead', 'admin'])
                ->exists();
    }

    /**
     * @return list<CaughtMail>
     */
    public function newest(): array
    {
        return array_values(
            DB::table('caught_mails')
                ->orderByDesc('id')
                ->limit(self::MOST)
                ->get()
                ->map(
                    static fn(object $m): CaughtMail => new CaughtMail($m->id, $m->to, $m->subject, $m->text, UtcTime::time($m->at) ?? ''),
                )
                ->all(),
        );
    }
}
