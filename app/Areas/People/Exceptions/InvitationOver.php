<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Exceptions;

use LucidStep\App\Models\Invitation;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Access\InvitationState;

/**
 * An invitation cannot be accepted, or not by whoever tries.
 */
final class InvitationOver extends Conflict
{
    /**
     * What stands against accepting it, whoever looks; null when nothing does.
     *
     * @param  Invitation  $invitation with its project and inviter loaded
     */
    public static function of(Invitation $invitation): ?self
    {
        return match ($invitation->state()) {
            InvitationState::Withdrawn => self::withdrawn(),
            InvitationState::Accepted => self::used($invitation),
            InvitationState::Expired => null !== $invitation->project->archived_at
                ? self::archived($invitation)
                : self::expired($invitation),
            InvitationState::Open => null !== $invitation->project->archived_at ? self::archived($invitation) : null,
        };
    }

    public static function expired(Invitation $invitation): self
    {
        return new self(
            'invitation-over',
            "This invitation has expired. Ask {$invitation->inviter->name} to send it again: that takes one click.",
            ['why' => 'expired'],
        );
    }

    public static function withdrawn(): self
    {
        return new self('invitation-over', 'This invitation was withdrawn.', ['why' => 'withdrawn']);
    }

    public static function used(Invitation $invitation): self
    {
        return new self('invitation-over', "This invitation was accepted already. Sign in to go to {$invitation->project->name}.", [
            'why' => 'used',
            'project' => $invitation->project->code,
        ]);
    }

    public static function ofAnother(Invitation $invitation, string $name): self
    {
        return new self(
            'invitation-of-another',
            "This invitation is for {$invitation->email}, and you are signed in as {$name}. Sign out to accept it as yourself.",
            ['email' => $invitation->email],
        );
    }

    public static function account(Invitation $invitation): self
    {
        return new self('sign-in-first', "{$invitation->email} has an account already. Sign in with it to join.", [
            'email' => $invitation->email,
        ]);
    }

    public static function archived(Invitation $invitation): self
    {
        return new self('archived', "{$invitation->project->name} is archived: nobody joins it any more.");
    }
}
