<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use LucidStep\App\Models\User;
use LucidStep\Core\People\Preferences;

/**
 * Keeps how a person wants to work. Two choices that are made at once both count.
 */
final class SavePreferences
{
    /**
     * @param  \Closure(Preferences): Preferences  $change what is chosen, of what was before
     */
    public function __invoke(User $user, \Closure $change): void
    {
        $locked = User::query()->lockForUpdate()->findOrFail($user->id);
        $locked->update(['preferences' => $change($locked->chosen())->toArray()]);
        $user->refresh();
    }
}
