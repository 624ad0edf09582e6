<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Resources;

use LucidStep\Core\Defects\Draft;
use OpenApi\Attributes as OA;

/**
 * A defect with everything filled in, to be edited and filed.
 */
#[OA\Schema(description: 'A defect with everything filled in, to be edited and filed.')]
final readonly class DefectDraft
{
    public function __construct(
        #[OA\Property] public string $title,
        #[OA\Property] public string $preconditions,
        #[OA\Property(description: 'Numbered as in the case, with their verdicts, in Markdown')] public string $steps,
        #[OA\Property] public string $expected,
        #[OA\Property] public string $actual,
        #[OA\Property] public string $environment,
        #[OA\Property(description: 'The data, what was captured and where it came from, in Markdown')] public string $body,
        #[OA\Property(description: 'All of it as Markdown')] public string $markdown,
        #[OA\Property(description: 'All of it without marks')] public string $plain,
    ) {}

    public static function from(Draft $draft): self
    {
        $report = $draft->report();

        return new self(
            $draft->title,
            $draft->preconditions,
            $draft->steps,
            $draft->expected,
            $draft->actual,
            $draft->environment,
            $draft->body,
            $report->markdown(),
            $report->plain(),
        );
    }
}
