<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use LucidStep\App\Models\Step;
use OpenApi\Attributes as OA;

/**
 * A step as the case has it.
 */
#[OA\Schema(description: 'A step as the case has it.')]
final readonly class StepText
{
    public function __construct(
        #[OA\Property]
        public int $position,
        #[OA\Property]
        public string $action,
        #[OA\Property]
        public string $data,
        #[OA\Property]
        public string $expected,
    ) {
    }

    /**
     * @param  array{position: int, action: string, data: string, expected: string}  $step
     */
    public static function fromSnapshot(array $step): self
    {
        return new self($step['position'], $step['action'], $step['data'], $step['expected']);
    }

    public static function from(Step $step): self
    {
        return new self($step->position, $step->action, $step->data, $step->expected);
    }
}
