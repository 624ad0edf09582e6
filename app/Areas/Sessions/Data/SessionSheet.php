<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use OpenApi\Attributes as OA;

/**
 * A session on one sheet: to be read, printed, and carried elsewhere.
 */
#[OA\Schema(description: 'A session on one sheet: to be read, printed, and carried elsewhere.')]
final readonly class SessionSheet
{
    /**
     * @param  list<TimelineLine>  $lines
     */
    public function __construct(
        #[OA\Property] public SessionDetail $session,
        #[
            OA\Property(description: 'What was written and captured, and trouble', items: new OA\Items(ref: TimelineLine::class)),
        ]
        public array $lines,
        #[OA\Property(description: 'Acts that were observed')] public int $observed,
        #[OA\Property(description: 'All of it as Markdown')] public string $markdown,
    ) {}
}
