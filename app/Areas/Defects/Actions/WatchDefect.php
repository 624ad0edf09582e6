<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Membership;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\Core\Access\Role;

/**
 * Lets somebody be told of everything that becomes of a defect, or no more.
 */
final readonly class WatchDefect
{
    public function __construct(private PublishChange $announce) {}

    /**
     * @param  list<string>  $people ids
     *
     * @throws ValidationException when one has no part in the project, or sees no defects
     */
    public function watch(Defect $defect, array $people): void
    {
        $people = array_values(array_unique($people));
        $sees = Membership::query()
            ->where('project_id', $defect->project_id)
            ->whereIn('user_id', $people)
            ->where('role', '<>', Role::Reader)
            ->count();
        if ($sees < \count($people)) {
            throw ValidationException::withMessages(['person_id' => 'Nobody like this works on defects in the project.']);
        }
        $now = Carbon::now()->format('Y-m-d H:i:s.uP');
        DB::table('defect_watchers')->insertOrIgnore(
            array_map(static fn(string $id): array => ['defect_id' => $defect->id, 'user_id' => $id, 'created_at' => $now], $people),
        );
        ($this->announce)($defect->project_id, 'defect', $defect->id);
    }

    public function unwatch(Defect $defect, string $person): void
    {
        DB::table('defect_watchers')
            ->where(['defect_id' => $defect->id, 'user_id' => $person])
            ->delete();
        ($this->announce)($defect->project_id, 'defect', $defect->id);
    }
}
