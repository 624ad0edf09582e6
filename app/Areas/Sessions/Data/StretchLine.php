<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use OpenApi\Attributes as OA;

/**
 * A line of what leads to a fault.
 */
#[OA\Schema(description: 'A line of what leads to a fault.')]
final readonly class StretchLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $kind,
        #[OA\Property(description: "On the session's clock, in ms")] public int $at_ms,
        #[OA\Property(description: 'A sentence of what was observed, Markdown of what was written')] public string $words,
        #[OA\Property(description: 'Whether it is something to be done; else it came of a step, or was said')] public bool $is_step,
        #[
            OA\Property(
                description: 'Why it may be left out: `before_the_start`, `silent_capture`, `replaced`, `left_by_redirect` or `detour`; ' .
                    'null: it is proposed to stay',
            ),
        ]
        public ?string $why,
        #[OA\Property(description: 'The same in words')] public string $why_words,
        #[OA\Property] public bool $pinned,
        #[OA\Property] public ?string $thumbnail_url,
    ) {}
}
