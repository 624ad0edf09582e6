<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use LucidStep\App\Models\LinkPurpose;
use LucidStep\App\Models\OneTimeLink;
use LucidStep\App\Models\User;

/**
 * Makes and finds addresses that work once.
 */
final class OneTimeLinks
{
    /** For so many minutes one works. */
    public const MINUTES = 60;

    /**
     * Makes one; those before it for the same purpose and person do not work any more.
     *
     * @return string the page it leads to: what proves it stands behind the #, so that no log of a server ever has it
     */
    public static function make(LinkPurpose $purpose, ?User $user): string
    {
        $token = Str::random(48);
        OneTimeLink::query()
            ->where('purpose', $purpose)
            ->where('user_id', $user?->id)
            ->whereNull('used_at')
            ->update(['used_at' => Carbon::now()]);
        OneTimeLink::query()->create([
            'purpose' => $purpose,
            'user_id' => $user?->id,
            'token_hash' => hash('sha256', $token),
            'created_at' => Carbon::now(),
            'expires_at' => Carbon::now()->addMinutes(self::MINUTES),
        ]);

        return url("/begin#{$token}");
    }

    /**
     * @return ?OneTimeLink null when there is none, or it is over
     */
    public static function find(string $token): ?OneTimeLink
    {
        return OneTimeLink::query()
            ->where('token_hash', hash('sha256', $token))
            ->whereNull('used_at')
            ->where('expires_at', '>', Carbon::now())
            ->first();
    }
}
