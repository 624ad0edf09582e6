<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use LucidStep\App\Support\Data\Named;
use OpenApi\Attributes as OA;

/**
 * Figures over all sessions of a project that are over.
 */
#[OA\Schema(description: 'Figures over all sessions of a project that are over.')]
final readonly class SessionFigures
{
    /**
     * @param  list<FigureRow>  $rows
     */
    public function __construct(
        #[OA\Property(enum: ['folder', 'label', 'requirement', 'build', 'person', 'month'])] public string $by,
        #[OA\Property(items: new OA\Items(ref: FigureRow::class))] public array $rows,
        #[OA\Property(description: 'Of all of them together')] public FigureRow $all,
        #[OA\Property(description: 'Of the project')] public ?Named $newest_build,
    ) {}
}
