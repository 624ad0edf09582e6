<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * An event of an attempt, as its record shows it.
 */
#[OA\Schema(description: 'An event of an attempt, as its record shows it.')]
final readonly class RecordEvent
{
    /**
     * @param  list<string>  $evidence
     */
    public function __construct(
        #[OA\Property] public int $sequence,
        #[OA\Property] public string $kind,
        #[OA\Property] public ?Person $actor,
        #[OA\Property] public ?string $device_time,
        #[OA\Property] public string $server_time,
        #[OA\Property] public object $payload,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $evidence,
        #[OA\Property] public string $hash,
        #[OA\Property] public bool $removed,
        #[OA\Property(description: 'Whether it holds a text that a person wrote')] public bool $has_text,
    ) {}
}
