<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use LucidStep\App\Support\Data\TakenOut;
use OpenApi\Attributes as OA;

/**
 * A line of a session's timeline.
 */
#[OA\Schema(description: "A line of a session's timeline.")]
final readonly class TimelineLine
{
    /**
     * @param  list<string>  $former
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property(description: 'In order of arrival')] public int $number,
        #[
            OA\Property(
                enum: [
                    'note',
                    'question',
                    'idea',
                    'risk',
                    'issue',
                    'capture',
                    'visit',
                    'press',
                    'type',
                    'choose',
                    'tick',
                    'submit',
                    'trouble',
                ],
            ),
        ]
        public string $kind,
        #[OA\Property(description: "On the session's clock, in ms")] public int $at_ms,
        #[OA\Property(description: 'Markdown of what was written, or a sentence of what was observed')] public string $words,
        #[OA\Property(description: 'What it said before, the first first', items: new OA\Items(type: 'string'))] public array $former,
        #[OA\Property] public bool $pinned,
        #[OA\Property] public ?string $page,
        #[OA\Property(description: 'Of the file of a capture')] public string $name,
        #[OA\Property] public ?string $media_type,
        #[OA\Property] public ?string $url,
        #[OA\Property] public ?string $thumbnail_url,
        #[OA\Property] public ?TakenOut $removed,
    ) {}
}
