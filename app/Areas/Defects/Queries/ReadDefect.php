<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use LucidStep\App\Areas\Defects\Data\DefectChangeLine;
use LucidStep\App\Areas\Defects\Data\DefectDetail;
use LucidStep\App\Areas\Defects\Data\DefectLine;
use LucidStep\App\Areas\Defects\Data\DefectOrigin;
use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectLink;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Support\Data\Named;
use LucidStep\Core\Defects\DefectState;

/**
 * Reads a defect with everything about it.
 */
final readonly class ReadDefect
{
    public function __construct(private DefectAsText $text) {}

    public function __invoke(Defect $d): DefectDetail
    {
        $d->load(
            'reporter',
            'assignee',
            'case',
            'build',
            'fixedBuild',
            'links.entry.case',
            'links.entry.cycle',
            'links.attempt',
            'history.actor',
        );
        $evidence = Evidence::query()
            ->with('file')
            ->whereNull('removed_at')
            ->whereIn('attempt_id', $d->links->pluck('attempt_id'))
            ->orderBy('created_at')
            ->get()
            ->filter(
                static fn(Evidence $e): bool => $d->links->contains(
                    static fn(DefectLink $l): bool => $l->attempt_id === $e->attempt_id &&
                        (null === $l->step || ($l->step === $e->step && ($l->round ?? 1) === ($e->round ?? 1))),
                ),
            );

        return new DefectDetail(
            DefectLine::from($d),
            $d->body,
            $d->expected,
            $d->actual,
            $d->version,
            Named::orNull($d->fixedBuild),
            array_map(static fn(DefectState $s): string => $s->value, $d->state->next()),
            array_values($d->links->map(DefectOrigin::from(...))->all()),
            array_values($d->history->map(DefectChangeLine::of(...))->all()),
            array_values($evidence->map(static fn(Evidence $e): EvidenceItem => EvidenceItem::from($e))->all()),
            array_values(
                Build::query()
                    ->where('project_id', $d->project_id)
                    ->orderByDesc('position')
                    ->get()
                    ->map(static fn(Build $b): Named => Named::from($b))
                    ->all(),
            ),
            $this->text->markdown($d),
            $this->text->plain($d),
        );
    }

    /**
     * The attempt that a defect comes from.
     */
    public function attempt(string $project, string $id): ?Attempt
    {
        return Attempt::query()->where('project_id', $project)->find($id);
    }
}
