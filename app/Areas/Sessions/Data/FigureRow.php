<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use LucidStep\Core\Sessions\AreaFigures;
use OpenApi\Attributes as OA;

/**
 * Figures over the sessions of an area.
 */
#[OA\Schema(description: 'Figures over the sessions of an area: of a folder, a label, a requirement, a build, a person or a month.')]
final readonly class FigureRow
{
    public function __construct(
        #[OA\Property(description: 'An id, of a label its name, of a month such as 2026-11; empty: without')] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property] public int $sessions,
        #[OA\Property(description: 'Without pauses, in ms')] public int $active_ms,
        #[OA\Property(description: 'Of it testing')] public int $testing_ms,
        #[OA\Property(description: 'Share of it on the charter, 0 to 1; null: no time')] public ?float $on_charter,
        #[OA\Property] public int $issues,
        #[OA\Property] public int $questions,
        #[OA\Property(description: 'Issues an hour of testing; null: no time')] public ?float $per_hour,
        #[OA\Property(description: 'Of its exact Poisson interval, 5 % at each end')] public ?float $lower,
        #[OA\Property] public ?float $upper,
        #[OA\Property(description: 'Whole days since it was explored last; null: never')] public ?int $days_since,
        #[OA\Property(description: 'Builds since the newest that was explored; null: on none')] public ?int $builds_since,
        #[OA\Property(description: 'The newest build that was explored; empty: none')] public string $newest_build,
        #[OA\Property(description: 'Whether there is a newer build than any that was explored')] public bool $is_behind,
    ) {}

    /**
     * @param  int  $testing ms
     * @param  array<int, string>  $builds names by place
     */
    public static function of(string $id, string $name, AreaFigures $f, int $testing, array $builds): self
    {
        $rate = $f->issuesPerHour;

        return new self(
            $id,
            $name,
            $f->sessions,
            $f->activeMs,
            $testing,
            $f->onCharter,
            $f->issues,
            $f->questions,
            $rate?->perHour,
            $rate?->lower,
            $rate?->upper,
            $f->daysSince,
            $f->buildsSince,
            null === $f->newest ? '' : $builds[$f->newest] ?? '',
            $f->isBehind(),
        );
    }
}
