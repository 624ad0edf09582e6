<?php

declare(strict_types=1);

namespace LucidStep\Core\Verdict;

/**
 * A project's choices about verdicts, assignment and what follows an attempt.
 */
final readonly class Policies
{
    /**
     * @param  bool  $failSetsVerdict      a failing step sets the attempt's verdict, or only suggests it
     * @param  bool  $passSetsVerdict      a roll-up of pass sets it, or only suggests it
     * @param  bool  $openingTakes         opening an unassigned entry takes it
     * @param  bool  $onlyAssigneeRecords  nobody but the assignee records (a lead always may)
     * @param  bool  $cycleClosesItself    a cycle closes once everything in it is decided
     * @param  bool  $onlyApprovedCases    only approved cases may enter cycles
     * @param  AfterDone  $afterFinishing       where the walk goes after an attempt
     * @param  bool  $skipWrapUpOnPass     a clean pass is finished without the wrap-up
     * @param  bool  $cyclesAreReviewed    somebody else reviews a cycle before it is released
     * @param  bool  $retestsVerify        a defect is verified once every retest of it passed, or that is only proposed
     */
    public function __construct(
        public bool $failSetsVerdict = true,
        public bool $passSetsVerdict = true,
        public bool $openingTakes = true,
        public bool $onlyAssigneeRecords = false,
        public bool $cycleClosesItself = false,
        public bool $onlyApprovedCases = false,
        public AfterDone $afterFinishing = AfterDone::NextOpen,
        public bool $skipWrapUpOnPass = false,
        public bool $cyclesAreReviewed = false,
        public bool $retestsVerify = true,
    ) {}

    /**
     * Whether somebody who records in the project may record this entry: anybody, unless only its assignee does; then its
     * assignee, whoever takes it by opening it, and leads.
     *
     * @param  ?string  $assignee null: nobody's
     */
    public function letsRecord(?string $assignee, string $person, bool $leads): bool
    {
        return !$this->onlyAssigneeRecords || $leads || $assignee === $person || (null === $assignee && $this->openingTakes);
    }

    /**
     * Reads stored policies; what is missing or of another type takes its default.
     *
     * @param  array<array-key, mixed>  $stored
     */
    public static function fromArray(array $stored): self
    {
        $default = (new self())->toArray();
        $flag = static fn(string $key): bool => \is_bool($stored[$key] ?? null) ? $stored[$key] : (bool) $default[$key];
        $after = $stored['after_finishing'] ?? null;

        return new self(
            $flag('fail_sets_verdict'),
            $flag('pass_sets_verdict'),
            $flag('opening_takes'),
            $flag('only_assignee_records'),
            $flag('cycle_closes_itself'),
            $flag('only_approved_cases'),
            (\is_string($after) ? AfterDone::tryFrom($after) : null) ?? AfterDone::NextOpen,
            $flag('skip_wrap_up_on_pass'),
            $flag('cycles_are_reviewed'),
            $flag('retests_verify'),
        );
    }

    /**
     * @return array<string, bool|string>
     */
    public function toArray(): array
    {
        return [
            'fail_sets_verdict' => $this->failSetsVerdict,
            'pass_sets_verdict' => $this->passSetsVerdict,
            'opening_takes' => $this->openingTakes,
            'only_assignee_records' => $this->onlyAssigneeRecords,
            'cycle_closes_itself' => $this->cycleClosesItself,
            'only_approved_cases' => $this->onlyApprovedCases,
            'after_finishing' => $this->afterFinishing->value,
            'skip_wrap_up_on_pass' => $this->skipWrapUpOnPass,
            'cycles_are_reviewed' => $this->cyclesAreReviewed,
            'retests_verify' => $this->retestsVerify,
        ];
    }

    /**
     * Whether a roll-up sets the attempt's verdict; what it does not set it only suggests.
     */
    public function sets(Verdict $rollUp): bool
    {
        return match ($rollUp) {
            Verdict::Fail => $this->failSetsVerdict,
            Verdict::Pass => $this->passSetsVerdict,
            Verdict::Blocked, Verdict::NotApplicable => true,
            Verdict::NotRun, Verdict::InProgress => false,
        };
    }
}
