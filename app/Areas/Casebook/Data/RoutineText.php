<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A routine as a case that uses it shows it.
 */
#[OA\Schema(description: 'A routine as a case that uses it shows it.')]
final readonly class RoutineText
{
    /**
     * @param  list<ParameterLine>  $parameters
     * @param  list<StepEdit>  $steps
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property(items: new OA\Items(ref: ParameterLine::class))] public array $parameters,
        #[OA\Property(items: new OA\Items(ref: StepEdit::class))] public array $steps,
    ) {}
}
