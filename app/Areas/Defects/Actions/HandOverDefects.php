<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\People\OpenCounts;
use LucidStep\App\Support\People\OpenWork;
use LucidStep\Core\Defects\DefectState;

/**
 * Defects that wait for their assignee.
 */
final readonly class HandOverDefects implements OpenWork
{
    public function __construct(private PublishChange $announce) {}

    public function noun(): array
    {
        return ['defect', 'defects'];
    }

    public function needsTester(): bool
    {
        return false;
    }

    public function counts(Project $project): array
    {
        return OpenCounts::by(self::open($project), 'assignee_id');
    }

    public function handOver(Project $project, User $from, ?User $to, User $by): void
    {
        $note = "{$from->name} left the project. Now with " . ($to->name ?? 'nobody') . '.';
        $defects = self::open($project)
            ->where('assignee_id', $from->id)
            ->orderBy('id')
            ->lockForUpdate()
            ->get(['id', 'state']);
        $now = Carbon::now()->format('Y-m-d H:i:s.uP');
        DefectChange::query()->insert(
            $defects
                ->map(
                    static fn(Defect $d): array => [
                        'id' => (string) Str::uuid7(),
                        'defect_id' => $d->id,
                        'actor_id' => $by->id,
                        'from_state' => $d->state->value,
                        'to_state' => $d->state->value,
                        'note' => $note,
                        'created_at' => $now,
                    ],
                )
                ->all(),
        );
        Defect::query()
            ->whereKey($defects->modelKeys())
            ->increment('version', 1, ['assignee_id' => $to?->id]);
        $this->announce->all($project->id, 'defect', array_values($defects->modelKeys()));
    }

    /**
     * @return Builder<Defect>
     */
    private static function open(Project $project): Builder
    {
        return Defect::query()->where('project_id', $project->id)->whereNotIn('state', DefectState::closed());
    }
}
