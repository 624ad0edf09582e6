<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Moves dates when a cycle or a milestone is planned again (rules of the job, 6): all by the same number of days, at the
 * same local time.
 */
final readonly class Shift
{
    private \DateTimeZone $zone;

    /**
     * @param  int  $days     new date − old date
     * @param  string  $zone     the project's time zone
     * @param  bool  $offDays  whether a start on a day off moves to the next working day, an end to the one before
     */
    public function __construct(public int $days, private Calendar $calendar, string $zone, private bool $offDays = false)
    {
        $this->zone = new \DateTimeZone($zone);
    }

    /**
     * @return array{string, string} the new start and end; when the end would come before the start, both fall on the next working day
     */
    public function dates(string $start, string $end): array
    {
        $start = Calendar::plus($start, $this->days);
        $end = Calendar::plus($end, $this->days);
        if (!$this->offDays) {
            return [$start, $end];
        }
        $first = $this->calendar->onOrAfter($start);
        $last = $this->calendar->onOrBefore($end);

        return $first > $last ? [$first, $first] : [$first, $last];
    }

    /**
     * A moment, so many days later at the same local time.
     */
    public function moment(\DateTimeImmutable $moment): \DateTimeImmutable
    {
        return $moment
            ->setTimezone($this->zone)
            ->modify(\sprintf('%+d days', $this->days))
            ->setTimezone(new \DateTimeZone('UTC'));
    }
}
