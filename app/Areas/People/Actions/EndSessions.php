<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\People\Queries\Sessions;
use LucidStep\App\Models\User;

/**
 * Ends sessions: whoever sits there is signed out with their next request.
 */
final class EndSessions
{
    /**
     * @param  string  $name as {@see Sessions} tells it
     *
     * @throws ModelNotFoundException when this person has no such session
     */
    public function one(User $user, string $name): void
    {
        foreach (DB::table('sessions')->where('user_id', $user->id)->pluck('id') as $id) {
            if (hash_equals(Sessions::name((string) $id), $name)) {
                DB::table('sessions')->where('id', $id)->delete();

                return;
            }
        }
        throw new ModelNotFoundException();
    }

    /**
     * @param  ?string  $but the id of the one that stays
     */
    public function all(User $user, ?string $but = null): void
    {
        DB::table('sessions')
            ->where('user_id', $user->id)
            ->when(null !== $but, static fn($q) => $q->where('id', '<>', $but))
            ->delete();
    }
}
