<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use LucidStep\App\Support\Data\Named;
use OpenApi\Attributes as OA;

/**
 * What led to a line of a session: what is proposed to stay of it, and a defect drafted from it.
 */
#[OA\Schema(description: 'What led to a line of a session: what is proposed to stay of it, and a defect drafted from it.')]
final readonly class StretchDetail
{
    /**
     * @param  list<StretchLine>  $lines
     * @param  list<TimelineLine>  $captures
     */
    public function __construct(
        #[OA\Property] public string $session_id,
        #[OA\Property] public string $charter_key,
        #[OA\Property] public string $charter_title,
        #[OA\Property(description: 'Which session of the charter')] public int $number,
        #[OA\Property] public TimelineLine $marked,
        #[OA\Property(description: 'What led there, in order', items: new OA\Items(ref: StretchLine::class))] public array $lines,
        #[OA\Property(description: 'How many lines stand before these')] public int $before,
        #[
            OA\Property(description: 'Pictures and files of the stretch', items: new OA\Items(ref: TimelineLine::class)),
        ]
        public array $captures,
        #[OA\Property(description: 'Of a defect')] public string $title,
        #[OA\Property(description: 'What happened, for a defect')] public string $actual,
        #[OA\Property] public string $environment,
        #[OA\Property(description: 'Pages and trouble, in Markdown')] public string $body,
        #[OA\Property] public ?Named $build,
        #[OA\Property] public ?Named $configuration,
        #[OA\Property(description: 'As it was saved; null: nobody did yet')] public ?ReproDetail $repro,
    ) {}
}
