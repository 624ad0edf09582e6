<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Exceptions;

use LucidStep\App\Models\Invitation;
use LucidStep\App\Support\Problems\Conflict;

/**
 * An invitation cannot be accepted, or not by whoever tries.
 */
final class InvitationOver extends Conflict
{
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
