<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\LinkPurpose;
use LucidStep\App\Models\OneTimeLink;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Transactions;

/**
 * Sets a password by an address that works once: of somebody who forgot theirs, or of an owner.
 */
final readonly class UseOneTimeLink
{
    public function __construct(private EndSessions $sessions, private SecondFactor $factor) {}

    /**
     * @param  string  $email of the first owner, when the address is theirs
     * @param  string  $name of the first owner
     *
     * @throws ModelNotFoundException when the address is not known, was used, or is over
     * @throws ValidationException by field
     */
    public function __invoke(string $token, string $email, string $name, string $password, string $code = ''): User
    {
        return Transactions::run(function () use ($token, $email, $name, $password, $code): User {
            $id = OneTimeLinks::find($token)->id ?? throw new ModelNotFoundException();
            $link = OneTimeLink::query()->with('user')->lockForUpdate()->findOrFail($id);
            $isLate = null === $link->user_id && User::query()->where('is_owner', true)->exists();
            if (null !== $link->used_at || $isLate) {
                throw new ModelNotFoundException();
            }
            $password = ChoosePassword::sure($password);
            if (null !== $link->user) {
                // Whoever runs the machine vouches for an owner who lost everything; a mail alone is no second factor.
                LinkPurpose::Owner === $link->purpose ? SecondFactor::clear($link->user) : $this->factor->pass($link->user, $code);
            }
            $user = $link->user?->refresh() ?? self::firstOwner($email, $name);
            $user->forceFill(['password' => $password, 'is_owner' => $user->is_owner || LinkPurpose::Owner === $link->purpose])->save();
            // Whoever knew the old one, and programs that were let in by it, are out.
            $user->tokens()->delete();
            $this->sessions->all($user);
            $link->update(['used_at' => Carbon::now(), 'user_id' => $user->id]);

            return $user;
        });
    }

    private static function firstOwner(string $email, string $name): User
    {
        $email = Str::lower(trim($email));
        $errors = array_filter([
            'name' => '' === trim($name) ? 'Write the name by which others know you here.' : '',
            'email' => match (true) {
                '' === $email => 'Write your mail address: you sign in with it.',
                User::query()->where('email', $email)->exists()
                    => 'This address has an account. Ask for an address for it: ./lucid owner ' . $email,
                default => '',
            },
        ]);
        if ([] !== $errors) {
            throw ValidationException::withMessages($errors);
        }

        return new User(['name' => trim($name), 'email' => $email, 'preferences' => []]);
    }
}
