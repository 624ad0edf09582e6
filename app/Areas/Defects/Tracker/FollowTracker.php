<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Tracker;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Actions\ChangeDefectState;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\TrackerConnection;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\Core\Defects\Tracker\OutsideFacts;
use LucidStep\Core\Defects\Tracker\OutsideNews;

/**
 * Takes what changed in the tracker: state and assignee follow it, and nothing of that is sent back.
 */
final readonly class FollowTracker
{
    public function __construct(private OutsideHttp $http, private ChangeDefectState $move, private PublishChange $announce) {}

    /**
     * Asks what changed since it was asked last, and takes it.
     *
     * @throws TrackerAway|TrackerRefused
     */
    public function poll(TrackerConnection $connection): void
    {
        $tracker = new JsonTracker($this->http, $connection->address, $connection->token, $connection->map());
        [$issues, $next] = $tracker->changedSince($connection->cursor);
        foreach ($issues as $issue) {
            $this->take($connection, $issue);
        }
        $connection->update(['cursor' => '' === $next ? $connection->cursor : $next, 'polled_at' => Carbon::now()]);
    }

    public function take(TrackerConnection $connection, OutsideIssue $issue): void
    {
        DB::transaction(function () use ($connection, $issue): void {
            $defect = Defect::query()
                ->where('project_id', $connection->project_id)
                ->where('outside_key', $issue->key)
                ->lockForUpdate()
                ->first();
            if (null === $defect) {
                return;
            }
            $news = OutsideNews::of(
                $connection->map(),
                $defect->state,
                new OutsideFacts($issue->state, $issue->assignee, $issue->changed),
                new OutsideFacts($defect->outside_state, $defect->outside_assignee, $defect->outside_changed),
            );
            if (!$news->isNew) {
                return;
            }
            $defect->fill([
                'outside_state' => '' === $issue->state ? $defect->outside_state : $issue->state,
                'outside_assignee' => $news->assignee ?? $defect->outside_assignee,
                'outside_changed' => '' === $issue->changed ? $defect->outside_changed : $issue->changed,
                'outside_seen_at' => Carbon::now(),
            ]);
            $person = null === $news->assignee ? null : $this->person($defect->project_id, $news->assignee);
            $this->move->follow($defect, $news->to, $person, "{$issue->key} in the tracker: {$issue->state}");
            ($this->announce)($defect->project_id, 'defect', $defect->id);
        });
    }

    /**
     * Who of the project has this mail address or name there; null: nobody.
     */
    private function person(string $project, string $named): ?string
    {
        $found = Membership::query()
            ->where('project_id', $project)
            ->whereHas('user', static fn($q) => $q->whereRaw('lower(email) = lower(?) or lower(name) = lower(?)', [$named, $named]))
            ->first();

        return $found?->user_id;
    }
}
