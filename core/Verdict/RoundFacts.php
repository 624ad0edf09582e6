<?php

declare(strict_types=1);

namespace LucidStep\Core\Verdict;

/**
 * What must be known of a round to say what its attempt comes to.
 */
final readonly class RoundFacts
{
    /**
     * @param  int  $position 1, 2, 3 … inside the attempt
     * @param  list<Verdict>  $verdicts of its steps
     * @param  bool  $skipped  left out with a word of why
     * @param  ?int  $repeats  the round whose row it walks once more
     */
    public function __construct(public int $position, public array $verdicts, public bool $skipped = false, public ?int $repeats = null) {}

    /**
     * The round's own verdict: not applicable when it was left out.
     */
    public function rollUp(): Verdict
    {
        return $this->skipped ? Verdict::NotApplicable : Verdict::rollUp($this->verdicts);
    }
}
