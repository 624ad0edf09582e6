<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Models\StepResult;
use OpenApi\Attributes as OA;

/**
 * What was recorded of a step.
 */
#[OA\Schema(description: 'What was recorded of a step.')]
final readonly class StepRecord
{
    public const COLUMNS = [
        'position',
        'verdict',
        'note',
        'happened',
        'reason',
        'waits_on',
        'active_ms',
        'tries',
        'tries_failed',
        'judged_at',
    ];

    public function __construct(
        #[OA\Property] public int $position,
        #[OA\Property(enum: ['pass', 'fail', 'blocked', 'not_applicable', 'not_run'])] public string $verdict,
        #[OA\Property] public string $note,
        #[OA\Property] public string $happened,
        #[OA\Property] public string $reason,
        #[OA\Property] public string $waits_on,
        #[OA\Property] public int $active_ms,
        #[OA\Property(description: 'How often it was tried without a verdict')] public int $tries,
        #[OA\Property] public int $tries_failed,
        #[OA\Property] public ?string $judged_at,
    ) {}

    public static function from(StepResult $r): self
    {
        return self::fromRow((object) $r->getAttributes());
    }

    /**
     * @param  \stdClass  $r as the database has it: an attempt may have thousands, and models of them take the most of its time
     */
    public static function fromRow(\stdClass $r): self
    {
        $judged =
            null === $r->judged_at
                ? null
                : (new \DateTimeImmutable($r->judged_at))->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s.v\Z');

        return new self(
            $r->position,
            $r->verdict,
            $r->note,
            $r->happened,
            $r->reason,
            $r->waits_on,
            $r->active_ms,
            $r->tries,
            $r->tries_failed,
            $judged,
        );
    }

    /**
     * Of a step that nobody has judged.
     */
    public static function blank(int $position): self
    {
        return new self($position, 'not_run', '', '', '', '', 0, 0, 0, null);
    }
}
