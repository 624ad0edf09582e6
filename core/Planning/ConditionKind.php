<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

use LucidStep\Core\Verdict\EntryState;
use LucidStep\Core\Verdict\Verdict;

/**
 * How an entry depends on another of its cycle.
 */
enum ConditionKind: string
{
    case After = 'after';
    case OnlyIfPassed = 'only_if_passed';

    /**
     * @param  string  $needed what it depends on, such as "SKR-C4"
     */
    public function words(string $needed): string
    {
        return match ($this) {
            self::After => "after {$needed}",
            self::OnlyIfPassed => "only if {$needed} passed",
        };
    }

    /**
     * Whether an entry that depends in this way need not wait any more.
     */
    public function isMetBy(EntryState $needed): bool
    {
        return match ($this) {
            self::After => $needed->isDone(),
            self::OnlyIfPassed => Verdict::Pass->value === $needed->displayState,
        };
    }
}
