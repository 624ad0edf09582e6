<?php

declare(strict_types=1);

namespace LucidStep\Core\Verdict;

/**
 * What was decided of a step, a round or an attempt; `InProgress` only comes out of a roll-up.
 */
enum Verdict: string
{
    case Pass = 'pass';
    case Fail = 'fail';
    case Blocked = 'blocked';
    case NotApplicable = 'not_applicable';
    case NotRun = 'not_run';
    case InProgress = 'in_progress';

    /**
     * Whether an attempt may end with it.
     */
    public function isFinal(): bool
    {
        return match ($this) {
            self::Pass, self::Fail, self::Blocked, self::NotApplicable => true,
            self::NotRun, self::InProgress => false,
        };
    }

    /**
     * Whether a person may give it to a step; not run takes a verdict back.
     */
    public function isForSteps(): bool
    {
        return self::InProgress !== $this;
    }

    /**
     * The verdict in words, as people read it.
     */
    public function label(): string
    {
        return str_replace('_', ' ', $this->value);
    }

    /**
     * Rolls steps up to a round, or rounds to an attempt: fail, then blocked, then not run or
     * empty, then in progress, then not applicable, else pass.
     *
     * @param  iterable<self>  $verdicts in any order
     */
    public static function rollUp(iterable $verdicts): self
    {
        $seen = [];
        foreach ($verdicts as $verdict) {
            $seen[$verdict->value] = true;
        }
        $only = static fn(self $v): bool => [$v->value] === array_keys($seen);

        return match (true) {
            isset($seen[self::Fail->value]) => self::Fail,
            isset($seen[self::Blocked->value]) => self::Blocked,
            [] === $seen, $only(self::NotRun) => self::NotRun,
            isset($seen[self::NotRun->value]), isset($seen[self::InProgress->value]) => self::InProgress,
            $only(self::NotApplicable) => self::NotApplicable,
            default => self::Pass,
        };
    }
}
