<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Database\QueryException;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\People\Queries\DemoPeople;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;

/**
 * Takes the demo out of an installation again: its projects, and its people who did nothing anywhere else.
 */
final readonly class RemoveDemo
{
    public function __construct(private DeleteProject $delete, private DemoPeople $people) {}

    /**
     * @return list<string> the mail addresses of those who stay, since they have part in something else
     */
    public function __invoke(): array
    {
        foreach (Project::query()->where('is_demo', true)->get() as $project) {
            $project->update(['archived_at' => $project->archived_at ?? Carbon::now(), 'deleting_at' => Carbon::now()]);
            $this->delete->now($project->id, null);
        }
        $stay = [];
        foreach ($this->people->all() as ['email' => $email]) {
            $user = User::query()->where('email', $email)->first();
            if (null !== $user && !self::remove($user)) {
                $stay[] = $email;
            }
            DB::table('caught_mails')->where('to', $email)->delete();
        }

        return $stay;
    }

    private static function remove(User $user): bool
    {
        if ($user->memberships()->exists() || ($user->is_owner && User::query()->where('is_owner', true)->count() < 2)) {
            return false;
        }
        try {
            DB::transaction(static function () use ($user): void {
                $user->tokens()->delete();
                $user->delete();
            });
        } catch (QueryException $e) {
            // They are named in what stays.
            return '23503' === $e->getCode() ? false : throw $e;
        }

        return true;
    }
}
