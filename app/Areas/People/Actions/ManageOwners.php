<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use LucidStep\App\Areas\People\Exceptions\LastOne;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Transactions;

/**
 * Who are the owners of the installation. One always is.
 */
final class ManageOwners
{
    /**
     * @throws LastOne when nobody would be owner any more
     * @throws ModelNotFoundException when there is nobody of this id
     */
    public function change(string $person, bool $isOwner): void
    {
        Transactions::run(static function () use ($person, $isOwner): void {
            // All are locked, so that two owners do not go at the same moment.
            $owners = User::query()->where('is_owner', true)->orderBy('id')->lockForUpdate()->get();
            $user = User::query()->findOrFail($person);
            throw_if(!$isOwner && $user->is_owner && 1 === $owners->count(), LastOne::owner($user->name));
            $user->forceFill(['is_owner' => $isOwner])->save();
        });
    }
}
