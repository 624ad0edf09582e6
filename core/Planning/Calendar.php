<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Which days a project works. Days are given and told as `2026-11-23`, so that no time zone moves them.
 */
final readonly class Calendar
{
    /** @var array<string, true> */
    private array $off;

    /**
     * @param  list<int>  $weekdays the working ones, 1 (Monday) to 7
     * @param  list<string>  $holidays
     *
     * @throws \InvalidArgumentException when no day of the week is worked
     */
    public function __construct(private array $weekdays = [1, 2, 3, 4, 5], array $holidays = [])
    {
        if ([] === array_intersect($weekdays, range(1, 7))) {
            throw new \InvalidArgumentException('At least one day of the week must be worked.');
        }
        $this->off = array_fill_keys($holidays, true);
    }

    /**
     * @param  list<string>  $daysOff of a person
     */
    public function works(string $day, array $daysOff = []): bool
    {
        return !isset($this->off[$day]) &&
            !\in_array($day, $daysOff, true) &&
            \in_array((int) self::at($day)->format('N'), $this->weekdays, true);
    }

    /**
     * The working days from one day to another, both included.
     *
     * @param  list<string>  $daysOff of a person
     */
    public function days(string $from, string $to, array $daysOff = []): int
    {
        $n = 0;
        for ($day = $from; $day <= $to; $day = self::plus($day, 1)) {
            $n += $this->works($day, $daysOff) ? 1 : 0;
        }

        return $n;
    }

    /**
     * The day itself when it is worked, else the next one that is.
     */
    public function onOrAfter(string $day): string
    {
        for ($i = 0; $i < 3660 && !$this->works($day); $i++) {
            $day = self::plus($day, 1);
        }

        return $day;
    }

    /**
     * The day itself when it is worked, else the last one before it that was.
     */
    public function onOrBefore(string $day): string
    {
        for ($i = 0; $i < 3660 && !$this->works($day); $i++) {
            $day = self::plus($day, -1);
        }

        return $day;
    }

    public static function plus(string $day, int $days): string
    {
        return self::at($day)->modify(\sprintf('%+d days', $days))->format('Y-m-d');
    }

    /**
     * How many days lie between two days; below zero when the second comes first.
     */
    public static function between(string $from, string $to): int
    {
        return (int) self::at($from)->diff(self::at($to))->format('%r%a');
    }

    private static function at(string $day): \DateTimeImmutable
    {
        return new \DateTimeImmutable($day, new \DateTimeZone('UTC'));
    }
}
