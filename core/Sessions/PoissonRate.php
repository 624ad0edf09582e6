<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * How many an hour, from so many in so much time, with the exact interval of a Poisson count: two-sided, 5 % at each end (the lower bound
 * is the mean at which so many or more come with 5 %, the upper one that at which so many or fewer do).
 */
final readonly class PoissonRate
{
    private const END = 0.05;

    private function __construct(public float $perHour, public float $lower, public float $upper) {}

    /**
     * @param  int  $ms of testing
     *
     * @return ?self null without any time
     */
    public static function of(int $count, int $ms): ?self
    {
        if ($ms <= 0) {
            return null;
        }
        $hours = $ms / 3_600_000;
        // P(X >= n) = 1 - P(X <= n - 1) grows with the mean, P(X <= n) falls.
        $lower = 0 === $count ? 0.0 : self::mean(static fn(float $mean): bool => 1 - self::atMost($count - 1, $mean) < self::END, $count);
        $upper = self::mean(static fn(float $mean): bool => self::atMost($count, $mean) > self::END, $count);

        return new self($count / $hours, $lower / $hours, $upper / $hours);
    }

    /**
     * The mean up to which something holds, by halving.
     *
     * @param  \Closure(float): bool  $holds
     */
    private static function mean(\Closure $holds, int $count): float
    {
        [$low, $high] = [0.0, 10.0 + 2 * $count + 10 * sqrt($count)];
        for ($i = 0; $i < 100; ++$i) {
            $middle = ($low + $high) / 2;
            $holds($middle) ? ($low = $middle) : ($high = $middle);
        }

        return $low;
    }

    /**
     * P(X <= n) of a Poisson count.
     */
    private static function atMost(int $n, float $mean): float
    {
        $sum = 0.0;
        $log = -$mean;
        for ($k = 0; $k <= $n; ++$k) {
            $sum += exp($log);
            $log += log(max($mean, 1e-300)) - log($k + 1);
        }

        return min(1.0, $sum);
    }
}
