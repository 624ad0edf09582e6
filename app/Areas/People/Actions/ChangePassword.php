<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Support\Facades\Hash;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Transactions;

/**
 * Changes a password by whoever knows the one before. Every other session of theirs ends, and so do their tokens.
 */
final readonly class ChangePassword
{
    public function __construct(private EndSessions $sessions) {}

    /**
     * @param  ?string  $session the id of the session that stays
     *
     * @throws ValidationException by field
     */
    public function __invoke(User $user, string $old, string $new, ?string $session): void
    {
        if (!Hash::check($old, $user->password)) {
            throw ValidationException::withMessages(['old' => 'This is not the password that you have now.']);
        }
        $new = ChoosePassword::sure($new, 'password');
        Transactions::run(function () use ($user, $new, $session): void {
            $user->forceFill(['password' => $new])->save();
            $user->tokens()->delete();
            $this->sessions->all($user, $session);
        });
    }
}
