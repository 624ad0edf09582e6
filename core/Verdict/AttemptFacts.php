<?php

declare(strict_types=1);

namespace LucidStep\Core\Verdict;

/**
 * What must be known of an attempt to say what its entry shows.
 */
final readonly class AttemptFacts
{
    /**
     * @param  int  $number     given at the start, in the server's order
     * @param  bool  $hasVerdict whether any step of it has a verdict
     * @param  ?Verdict  $verdict    the final verdict, of a finished one
     * @param  \DateTimeImmutable  $startedAt  the server's time
     */
    public function __construct(
        public int $number,
        public AttemptState $state,
        public bool $hasVerdict,
        public ?Verdict $verdict,
        public \DateTimeImmutable $startedAt,
    ) {}
}
