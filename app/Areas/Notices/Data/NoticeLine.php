<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Notices\Data;

use OpenApi\Attributes as OA;

/**
 * A notice to a person.
 */
#[OA\Schema(description: 'A notice to a person.')]
final readonly class NoticeLine
{
    /**
     * @param  list<string>  $before
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $text,
        #[OA\Property] public string $link,
        #[OA\Property] public string $at,
        #[OA\Property] public bool $read,
        #[
            OA\Property(
                description: 'What was told before it of the same kind and about the same, the newest first.',
                items: new OA\Items(type: 'string'),
            ),
        ]
        public array $before,
    ) {}
}
