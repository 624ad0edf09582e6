<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use LucidStep\App\Areas\Defects\Data\DefectChangeLine;
use LucidStep\App\Areas\Defects\Data\DefectDetail;
use LucidStep\App\Areas\Defects\Data\DefectLine;
use LucidStep\App\Areas\Defects\Data\DefectName;
use LucidStep\App\Areas\Defects\Data\DefectOrigin;
use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\DefectLink;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\Membership;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Defects\DefectState;

/**
 * Reads a defect with everything about it.
 */
final readonly class ReadDefect
{
    public function __construct(private DefectAsText $text) {}

    /**
     * @param  bool  $mayFile whether whoever reads may file defects
     */
    public function __invoke(Defect $d, bool $mayFile): DefectDetail
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
            'duplicateOf',
            'duplicates',
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

        $people = $this->people($d->project_id);
        $names = array_column($people, 'name', 'id');

        return new DefectDetail(
            DefectLine::from($d),
            $d->body,
            $d->expected,
            $d->actual,
            $d->version,
            Named::orNull($d->fixedBuild),
            array_map(static fn(DefectState $s): string => $s->value, $d->state->moves($mayFile, $d->asked_in ?? DefectState::New)),
            array_values($d->links->map(DefectOrigin::from(...))->all()),
            array_values($d->history->map(static fn(DefectChange $c): DefectChangeLine => DefectChangeLine::of($c, $names))->all()),
            array_values($evidence->map(static fn(Evidence $e): EvidenceItem => EvidenceItem::from($e))->all()),
            array_values(
                Build::query()
                    ->where('project_id', $d->project_id)
                    ->orderByDesc('position')
                    ->get()
                    ->map(static fn(Build $b): Named => Named::from($b))
                    ->all(),
            ),
            $d->asked_in?->value,
            null === $d->duplicateOf ? null : DefectName::of($d->duplicateOf),
            array_values($d->duplicates->map(DefectName::of(...))->all()),
            DefectTalk::of($d->id),
            $people,
            $d->history->contains('to_state', DefectState::Fixed),
            $this->text->markdown($d),
            $this->text->plain($d),
        );
    }

    /**
     * @return list<Person> everybody of the project who may work on defects, by name
     */
    private function people(string $project): array
    {
        return array_values(
            Membership::query()
                ->where('project_id', $project)
                ->where('role', '<>', Role::Reader)
                ->with('user')
                ->get()
                ->map(static fn(Membership $m): Person => Person::from($m->user))
                ->sortBy('name')
                ->all(),
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
