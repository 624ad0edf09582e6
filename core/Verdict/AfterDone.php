<?php

declare(strict_types=1);

namespace LucidStep\Core\Verdict;

/**
 * Where the walk goes once an attempt is finished.
 */
enum AfterDone: string
{
    case NextInOrder = 'next_in_order';
    case NextOpen = 'next_open';
    case Stay = 'stay';
}
