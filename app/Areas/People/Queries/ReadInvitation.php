<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Queries;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use LucidStep\App\Areas\People\Data\InvitationPage;
use LucidStep\App\Areas\People\Exceptions\InvitationOver;
use LucidStep\App\Models\User;

/**
 * Reads an invitation for whoever holds its address.
 */
final class ReadInvitation
{
    /**
     * @param  ?User  $user who is signed in
     *
     * @throws InvitationOver when nobody can accept it any more
     * @throws ModelNotFoundException when there is none of this token
     */
    public function __invoke(string $token, ?User $user): InvitationPage
    {
        $invitation = InvitationLinks::find($token) ?? throw new ModelNotFoundException();
        $isMe = $user?->email === $invitation->email;
        $over = InvitationOver::of($invitation);
        if (null !== $over) {
            throw $over;
        }

        return new InvitationPage(
            $invitation->project->name,
            $invitation->project->code,
            $invitation->inviter->name,
            $invitation->email,
            $invitation->name,
            $invitation->role->value,
            User::query()->where('email', $invitation->email)->exists(),
            null === $user || $isMe ? null : $user->name,
            $isMe,
        );
    }
}
