<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Queries;

use Illuminate\Support\Str;
use LucidStep\App\Models\Invitation;

/**
 * The addresses at which invitations are accepted. They can be told again, and nobody makes one up: they are signed with the key of
 * the installation. What proves it stands behind the #, so that no log of a server ever has it.
 */
final class InvitationLinks
{
    public static function address(Invitation $invitation): string
    {
        return url('/join#' . self::token($invitation));
    }

    public static function token(Invitation $invitation): string
    {
        return "{$invitation->id}." . self::proof($invitation);
    }

    /**
     * @return ?Invitation null when no invitation has this token
     */
    public static function find(string $token): ?Invitation
    {
        [$id, $proof] = [...explode('.', $token, 2), ''];
        $found = Str::isUuid($id) ? Invitation::query()->find($id) : null;

        return null !== $found && hash_equals(self::proof($found), $proof) ? $found : null;
    }

    private static function proof(Invitation $invitation): string
    {
        return hash_hmac('sha256', "invitation {$invitation->id} {$invitation->email}", (string) config('app.key'));
    }
}
