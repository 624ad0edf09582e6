<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Data;

use LucidStep\Core\Record\Verification;
use OpenApi\Attributes as OA;

/**
 * Whether an attempt's record is whole.
 */
#[OA\Schema(description: "Whether an attempt's record is whole.")]
final readonly class RecordCheck
{
    /**
     * @param  list<string>  $removed
     */
    public function __construct(
        #[OA\Property(enum: ['whole', 'open', 'broken'])] public string $state,
        #[OA\Property] public int $events,
        #[OA\Property] public ?int $at,
        #[OA\Property] public ?string $why,
        #[OA\Property] public ?string $head,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'What was taken out with its trace')] public array $removed,
    ) {}

    public static function from(Verification $v): self
    {
        return new self($v->state, $v->events, $v->at, $v->why, $v->head, $v->removed);
    }
}
