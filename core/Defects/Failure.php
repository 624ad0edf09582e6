<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

use LucidStep\Core\Verdict\Verdict;

/**
 * Everything known of a failure, from which a defect is drafted.
 */
final readonly class Failure
{
    /**
     * @param  string  $happened      what happened instead, in the tester's words
     * @param  array<string, string>  $dataRow       secrets already masked
     * @param  list<WalkedStep>  $steps         the steps of the failing round
     * @param  ?int  $failingNumber the number of the failing step; null for a failure without one
     * @param  list<string>  $evidence      names of what was captured
     * @param  list<string>  $links         where it came from
     * @param  string  $environment   where it was walked: its name, and more of it in words
     */
    public function __construct(
        public string $caseTitle,
        public string $happened,
        public string $build = '',
        public string $configuration = '',
        public array $dataRow = [],
        public string $preconditions = '',
        public array $steps = [],
        public ?int $failingNumber = null,
        public array $evidence = [],
        public array $links = [],
        public string $environment = '',
    ) {}

    /**
     * The step that failed, if one did.
     */
    public function failingStep(): ?WalkedStep
    {
        foreach ($this->steps as $step) {
            if ($step->number === $this->failingNumber) {
                return $step;
            }
        }

        return null;
    }

    /**
     * The steps up to the failing one, without those not run; without a failing step all that were walked.
     *
     * @return list<WalkedStep>
     */
    public function reproduction(): array
    {
        return array_values(
            array_filter(
                $this->steps,
                fn(WalkedStep $s): bool => Verdict::NotRun !== $s->verdict &&
                    (null === $this->failingNumber || $s->number <= $this->failingNumber),
            ),
        );
    }
}
