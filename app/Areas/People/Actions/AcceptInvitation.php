<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\People\Exceptions\InvitationOver;
use LucidStep\App\Areas\People\Queries\InvitationLinks;
use LucidStep\App\Models\Invitation;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\Actor;
use LucidStep\App\Support\Transactions;

/**
 * Lets an invited person into the project: with one click when they have an account, and otherwise with a name and a password.
 */
final class AcceptInvitation
{
    /**
     * @param  ?User  $user who is signed in
     * @param  string  $name of a new account
     * @param  string  $password of a new account
     *
     * @throws InvitationOver when it is over, or of another
     * @throws ModelNotFoundException when there is none of this token
     * @throws ValidationException by field, of a new account
     * @return User who joined
     */
    public function __invoke(string $token, ?User $user, string $name, string $password): User
    {
        return Transactions::run(function () use ($token, $user, $name, $password): User {
            $id = InvitationLinks::find($token)->id ?? throw new ModelNotFoundException();
            // Two clicks of the same moment are one.
            $invitation = Invitation::query()->lockForUpdate()->findOrFail($id);
            if (null !== $user && $user->id === $invitation->accepted_by_id) {
                return $user;
            }
            $over = InvitationOver::of($invitation);
            if (null !== $over) {
                throw $over;
            }
            throw_if(null !== $user && $user->email !== $invitation->email, InvitationOver::ofAnother($invitation, $user->name ?? ''));
            if (null === $user) {
                throw_if(User::query()->where('email', $invitation->email)->exists(), InvitationOver::account($invitation));
                $user = self::account($invitation, $name, $password);
            }
            Actor::is($user->id);
            Membership::query()->firstOrCreate(
                ['project_id' => $invitation->project_id, 'user_id' => $user->id],
                ['role' => $invitation->role],
            );
            $invitation->update(['accepted_at' => Carbon::now(), 'accepted_by_id' => $user->id]);

            return $user;
        });
    }

    private static function account(Invitation $invitation, string $name, string $password): User
    {
        $name = trim($name);
        if ('' === $name) {
            throw ValidationException::withMessages(['name' => 'Write the name by which others know you here.']);
        }

        return User::query()
            ->create(['name' => $name, 'email' => $invitation->email, 'password' => ChoosePassword::sure($password)])
            ->refresh();
    }
}
