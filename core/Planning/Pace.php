<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * How quickly a cycle is walked, against how quickly it would have to be. Entries a working day; the last days count.
 */
final readonly class Pace
{
    /** What was walked in so many days counts, weekends and all. */
    public const WINDOW = 7;

    /**
     * @param  int  $left entries without a verdict
     * @param  int  $daysLeft working days up to the end, today among them; 0: it is past
     * @param  float  $walked entries a working day, lately
     */
    private function __construct(public int $left, public int $daysLeft, public float $walked) {}

    /**
     * @param  int  $left entries without a verdict
     * @param  int  $lately entries that were given a verdict within {@see WINDOW} days
     * @param  string  $from the day on which the cycle began, as `2026-11-29`
     * @param  string  $to the day on which it ends
     */
    public static function of(int $left, int $lately, string $from, string $to, string $today, Calendar $calendar): self
    {
        $since = max($from, Calendar::plus($today, 1 - self::WINDOW));
        // On a weekend nothing is divided by nothing.
        $days = max(1, $calendar->days($since, $today));

        return new self($left, $calendar->days($today, $to), round($lately / $days, 1));
    }

    /**
     * @return float entries a working day to be done in time; all that is left, when its time is over
     */
    public function needed(): float
    {
        return round($this->left / max(1, $this->daysLeft), 1);
    }

    /**
     * @return 'done'|'late'|'behind'|'in_time'
     */
    public function state(): string
    {
        return match (true) {
            0 === $this->left => 'done',
            0 === $this->daysLeft => 'late',
            $this->walked < $this->needed() => 'behind',
            default => 'in_time',
        };
    }
}
