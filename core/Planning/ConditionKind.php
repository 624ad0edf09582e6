<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * How an entry depends on another of its cycle.
 */
enum ConditionKind: string
{
    case After = 'after';
    case OnlyIfPassed = 'only_if_passed';
}
