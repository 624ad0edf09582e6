<?php

declare(strict_types=1);

namespace LucidStep\Core\Forecast;

/**
 * How long a round of a case is likely to take (rules of the job, 5).
 */
final class Estimate
{
    /** An entry takes no less, in seconds. */
    public const LEAST = 60;

    /** Where nothing is known, a step takes so long, in seconds. */
    public const STEP = 60;

    private const NEWEST = 10;

    /**
     * @param  list<int>  $times   seconds per round that finished walks took, newest first
     * @param  ?int  $author  seconds, the author's estimate
     * @param  int  $steps   of the case, routines written out
     * @param  ?float  $perStep the project's median seconds per step
     *
     * @return int seconds for a round: the median of the newest 10 times when there are 3, else the mean of all numbers
     *     there are, else by steps
     */
    public static function ofRound(array $times, ?int $author, int $steps, ?float $perStep = null): int
    {
        $newest = \array_slice($times, 0, self::NEWEST);
        if (\count($newest) >= 3) {
            return (int) round(self::median($newest));
        }
        $numbers = null === $author ? $newest : [...$newest, $author];
        if ([] !== $numbers) {
            return (int) round(array_sum($numbers) / \count($numbers));
        }

        return (int) round(($perStep ?? self::STEP) * max(1, $steps));
    }

    /**
     * @return int seconds: a round × the rounds, at least {@see LEAST}
     */
    public static function ofEntry(int $round, int $rounds): int
    {
        return max(self::LEAST, $round * max(1, $rounds));
    }

    /**
     * @param  non-empty-list<int|float>  $numbers
     */
    public static function median(array $numbers): float
    {
        sort($numbers);
        $half = intdiv(\count($numbers), 2);

        return 1 === \count($numbers) % 2 ? (float) $numbers[$half] : ($numbers[$half - 1] + $numbers[$half]) / 2;
    }
}
