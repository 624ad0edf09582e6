<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use LucidStep\App\Actions\Defects\WriteDefect;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectLink;
use LucidStep\App\Models\Evidence;
use LucidStep\Core\Defects\DefectState;
use OpenApi\Attributes as OA;

/**
 * A defect with everything about it.
 */
#[OA\Schema(description: 'A defect with everything about it.')]
final readonly class DefectDetail
{
    /**
     * @param  list<string>  $moves
     * @param  list<DefectOrigin>  $origins
     * @param  list<DefectMove>  $history
     * @param  list<EvidenceItem>  $evidence
     * @param  list<Named>  $builds
     */
    public function __construct(
        #[OA\Property]
        public DefectLine $defect,
        #[OA\Property]
        public string $body,
        #[OA\Property]
        public string $expected,
        #[OA\Property]
        public string $actual,
        #[OA\Property]
        public int $version,
        #[OA\Property]
        public ?Named $fixed_build,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $moves,
        #[OA\Property(items: new OA\Items(ref: DefectOrigin::class))]
        public array $origins,
        #[OA\Property(items: new OA\Items(ref: DefectMove::class))]
        public array $history,
        #[OA\Property(items: new OA\Items(ref: EvidenceItem::class))]
        public array $evidence,
        #[OA\Property(items: new OA\Items(ref: Named::class))]
        public array $builds,
        #[OA\Property]
        public string $markdown,
        #[OA\Property]
        public string $plain,
    ) {
    }

    public static function from(Defect $d, WriteDefect $write): self
    {
        $d->load('reporter', 'assignee', 'case', 'build', 'fixedBuild', 'links.entry.case', 'links.entry.cycle', 'links.attempt', 'history.actor');
        $evidence = Evidence::query()->with('file')->whereNull('removed_at')->whereIn('attempt_id', $d->links->pluck('attempt_id'))->orderBy('created_at')->get()
            ->filter(static fn (Evidence $e): bool => $d->links->contains(static fn (DefectLink $l): bool => $l->attempt_id === $e->attempt_id && (null === $l->step || ($l->step === $e->step && ($l->round ?? 1) === ($e->round ?? 1)))));

        return new self(
            DefectLine::from($d), $d->body, $d->expected, $d->actual, $d->version, Named::orNull($d->fixedBuild), array_map(static fn (DefectState $s): string => $s->value, $d->state->next()),
            array_values($d->links->map(DefectOrigin::from(...))->all()), array_values($d->history->map(DefectMove::of(...))->all()), array_values($evidence->map(static fn (Evidence $e): EvidenceItem => EvidenceItem::from($e))->all()),
            array_values(Build::query()->where('project_id', $d->project_id)->orderByDesc('position')->get()->map(static fn (Build $b): Named => Named::from($b))->all()), $write->markdown($d), $write->plain($d),
        );
    }
}
