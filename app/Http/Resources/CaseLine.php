<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use LucidStep\App\Models\TestCase;
use OpenApi\Attributes as OA;

/**
 * A case in a list.
 */
#[OA\Schema(description: 'A case in a list.')]
final readonly class CaseLine
{
    /**
     * @param  list<string>  $labels
     */
    public function __construct(
        #[OA\Property]
        public string $id,
        #[OA\Property]
        public string $key,
        #[OA\Property]
        public string $title,
        #[OA\Property]
        public ?string $folder_id,
        #[OA\Property(enum: ['draft', 'in_review', 'approved', 'retired'])]
        public string $state,
        #[OA\Property]
        public string $type,
        #[OA\Property(enum: ['critical', 'high', 'medium', 'low'])]
        public string $priority,
        #[OA\Property]
        public ?int $estimate_seconds,
        #[OA\Property]
        public ?Person $owner,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $labels,
        #[OA\Property]
        public string $updated_at,
    ) {
    }

    /**
     * @param  TestCase  $c with its owner loaded
     */
    public static function from(TestCase $c): self
    {
        return new self($c->id, $c->key, $c->title, $c->folder_id, $c->state, $c->type, $c->priority, $c->estimate_seconds, Person::orNull($c->owner), $c->labels, $c->updated_at->toIso8601ZuluString());
    }
}
