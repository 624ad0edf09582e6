<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * A session with everything about it but its timeline.
 */
#[OA\Schema(description: 'A session with everything about it but its timeline.')]
final readonly class SessionDetail
{
    /**
     * @param  list<array{int, ?int}>  $runs
     * @param  list<ReproDetail>  $repros
     * @param  list<SessionCommentLine>  $comments
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property(description: '1, 2, 3 … of its charter')] public int $number,
        #[OA\Property] public CharterLine $charter,
        #[OA\Property] public Person $tester,
        #[OA\Property(enum: ['running', 'paused', 'stopped', 'debriefed'])] public string $state,
        #[OA\Property] public ?Named $build,
        #[OA\Property] public ?Named $configuration,
        #[OA\Property] public string $environment,
        #[OA\Property(description: 'The time box, in ms')] public int $box_ms,
        #[
            OA\Property(
                description: 'When it ran: from and to in ms since 1970; null: it runs',
                items: new OA\Items(type: 'array', items: new OA\Items(type: 'integer', nullable: true)),
            ),
        ]
        public array $runs,
        #[OA\Property(description: 'Without pauses, as of `as_of`')] public int $active_ms,
        #[OA\Property(enum: ['charter', 'opportunity'])] public string $focus,
        #[OA\Property(enum: ['testing', 'investigating', 'setting_up'])] public string $work,
        #[OA\Property] public SessionShares $shares,
        #[OA\Property(description: 'In ms since 1970')] public int $as_of,
        #[OA\Property] public string $started_at,
        #[OA\Property] public ?string $stopped_at,
        #[
            OA\Property(description: 'Lines by kind', type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'integer')),
        ]
        public object $counts,
        #[
            OA\Property(description: 'Faults of which somebody kept what leads there', items: new OA\Items(ref: ReproDetail::class)),
        ]
        public array $repros,
        #[OA\Property(description: 'What was said of it', items: new OA\Items(ref: SessionCommentLine::class))] public array $comments,
        #[OA\Property(description: 'What was covered, as its tester says')] public string $covered,
        #[OA\Property] public string $remarks,
        #[OA\Property] public ?Person $signed_by,
        #[OA\Property] public ?string $signed_at,
        #[OA\Property] public string $sign_note,
        #[OA\Property(description: 'Whether whoever asks runs it')] public bool $mine,
    ) {}
}
