<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Actions;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Notices\Actions\NotifyPeople;
use LucidStep\App\Areas\Notices\Data\NoticeKind;
use LucidStep\App\Models\Charter;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\People\OpenCounts;
use LucidStep\App\Support\People\OpenWork;

/**
 * Charters that wait for whoever is to explore them. What somebody began stays theirs.
 */
final readonly class HandOverCharters implements OpenWork
{
    public function __construct(private NotifyPeople $notify, private PublishChange $announce) {}

    public function noun(): array
    {
        return ['charter', 'charters'];
    }

    public function needsTester(): bool
    {
        return true;
    }

    public function counts(Project $project): array
    {
        return OpenCounts::by(self::open($project), 'assignee_id');
    }

    public function handOver(Project $project, User $from, ?User $to, User $by): void
    {
        $charters = self::open($project)->where('assignee_id', $from->id)->orderBy('number')->lockForUpdate()->get();
        Charter::query()
            ->whereKey($charters->modelKeys())
            ->increment('version', 1, ['assignee_id' => $to?->id]);
        $this->announce->all($project->id, 'session', array_values($charters->modelKeys()));
        if (null === $to || $to->id === $by->id) {
            return;
        }
        foreach ($charters as $charter) {
            $this->notify->inProject(
                NoticeKind::Session,
                $project,
                [$to->id],
                "{$by->name} asks you to explore {$charter->key}: {$charter->title}",
                "/sessions/{$charter->key}",
            );
        }
    }

    /**
     * @return Builder<Charter>
     */
    private static function open(Project $project): Builder
    {
        return Charter::query()
            ->where('project_id', $project->id)
            ->whereNull('dropped_at')
            ->whereNotIn('id', DB::table('test_sessions')->where('project_id', $project->id)->select('charter_id'));
    }
}
