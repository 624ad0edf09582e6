<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Defects\Data\OutsideStand;
use LucidStep\App\Areas\Defects\Data\TrackerCallLine;
use LucidStep\App\Areas\Defects\Data\TrackerFields;
use LucidStep\App\Areas\Defects\Data\TrackerSetup;
use LucidStep\App\Areas\Defects\Tracker\TrackerQueue;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TrackerCall;
use LucidStep\App\Models\TrackerConnection;
use LucidStep\Core\Defects\Tracker\CallState;
use LucidStep\Core\Defects\Tracker\Standing;
use LucidStep\Core\Defects\Tracker\TrackerMapping;

/**
 * Reads how things stand with the tracker outside: of a project, and of one defect.
 */
final class ReadTracker
{
    private const SHOWN = 100;

    public static function ofProject(Project $project): TrackerSetup
    {
        $c = TrackerConnection::query()->where('project_id', $project->id)->first();
        $open = static fn() => TrackerCall::query()->where('project_id', $project->id);
        $practice = (string) config('lucid.practice_url');

        return new TrackerSetup(
            null !== $c,
            $c->enabled ?? true,
            $c->sends_each ?? true,
            $c->address ?? '',
            '' !== ($c->token ?? ''),
            null === $c ? '' : rtrim((string) config('app.url'), '/') . "/api/v1/tracker-webhooks/{$c->id}",
            TrackerFields::from(TrackerMapping::fromArray($c->mapping ?? [])),
            $c->problem ?? '',
            $c?->resting_until?->isFuture() ? $c->resting_until->toIso8601ZuluString() : null,
            $c?->polled_at?->toIso8601ZuluString(),
            $open()->where('state', CallState::Waiting)->count(),
            $open()->where('state', CallState::Refused)->count(),
            array_values(
                $open()
                    ->whereIn('state', [CallState::Waiting, CallState::Refused])
                    ->with('defect')
                    ->orderBy('number')
                    ->limit(self::SHOWN)
                    ->get()
                    ->map(TrackerCallLine::from(...))
                    ->all(),
            ),
            '' === $practice ? '' : rtrim($practice, '/') . '/tracker/api',
        );
    }

    /**
     * @return ?OutsideStand null where the project has no tracker, and the defect was never in one
     */
    public static function ofDefect(Defect $defect): ?OutsideStand
    {
        $connection = TrackerQueue::connection($defect->project_id);
        if (null === $connection && null === $defect->outside_key) {
            return null;
        }
        $calls = TrackerCall::query()
            ->where('defect_id', $defect->id)
            ->whereIn('state', [CallState::Waiting, CallState::Refused])
            ->with('defect')
            ->orderBy('number')
            ->limit(self::SHOWN)
            ->get();
        $sentAt = TrackerCall::query()->where('defect_id', $defect->id)->where('state', CallState::Sent)->max('done_at');
        $seen = $defect->outside_seen_at;

        return new OutsideStand(
            Standing::of(
                array_values($calls->map(static fn(TrackerCall $c): CallState => $c->state)->all()),
                null !== $defect->outside_key,
                null !== $seen && \is_string($sentAt) && $seen->isAfter(Carbon::parse($sentAt)),
            )->value,
            $defect->outside_key,
            $defect->outside_url,
            $defect->outside_state,
            $defect->outside_assignee,
            $seen?->toIso8601ZuluString(),
            array_values($calls->map(TrackerCallLine::from(...))->all()),
            $connection->sends_each ?? false,
        );
    }
}
