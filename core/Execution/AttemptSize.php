<?php

declare(strict_types=1);

namespace LucidStep\Core\Execution;

/**
 * How much an attempt holds: a result for each step in each round.
 */
final class AttemptSize
{
    /** More results than this are nobody's walk, and slow for all others to read. */
    public const MOST_RESULTS = 20_000;

    /**
     * @return ?string why it is too much, in words; null when it is not
     */
    public static function tooLarge(int $steps, int $rounds): ?string
    {
        return $steps * $rounds <= self::MOST_RESULTS
            ? null
            : \sprintf(
                '%s steps in %s rounds would be %s results in one attempt; at most %s are walked as one. Choose fewer rows, ' .
                    'or make several entries of them.',
                number_format($steps),
                number_format($rounds),
                number_format($steps * $rounds),
                number_format(self::MOST_RESULTS),
            );
    }
}
