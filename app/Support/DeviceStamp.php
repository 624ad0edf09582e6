<?php

declare(strict_types=1);

namespace LucidStep\App\Support;

use Illuminate\Support\Carbon;
use LucidStep\Core\Execution\Arrival;

/**
 * What the device says of an act: when, by its own clock, and which of its acts it was.
 */
final readonly class DeviceStamp
{
    /** A device clock off by more than this is noted, in ms. */
    public const CLOCK_TOLERANCE_MS = 120_000;

    /**
     * @param  ?Carbon  $sentAt the device's clock when it sent the request: what its clock is off by shows here
     */
    public function __construct(public ?Carbon $time = null, public ?int $counter = null, public ?Carbon $sentAt = null) {}

    /**
     * @param  array<string, mixed>  $fields `device_time` and `sent_at` (ISO 8601), `counter`
     */
    public static function fromArray(array $fields): self
    {
        $time = static fn(string $key): ?Carbon => isset($fields[$key]) && \is_string($fields[$key])
            ? Carbon::parse($fields[$key])->utc()
            : null;

        return new self($time('device_time'), isset($fields['counter']) ? (int) $fields['counter'] : null, $time('sent_at'));
    }

    /**
     * When it was done by the server's clock: what the device's clock is off by is taken off.
     */
    public function trueTime(Carbon $now): ?Carbon
    {
        return null === $this->time
            ? null
            : Carbon::instance(
                Arrival::trueTime(
                    $this->time->toDateTimeImmutable(),
                    $this->sentAt?->toDateTimeImmutable(),
                    $now->toDateTimeImmutable(),
                    self::CLOCK_TOLERANCE_MS,
                ),
            );
    }

    /**
     * How far the device's clock is ahead of the server's, in whole ms; null when it is within tolerance or unknown.
     */
    public function clockOff(Carbon $now): ?int
    {
        if (null === $this->sentAt) {
            return null;
        }
        $off = (int) round($now->diffInMilliseconds($this->sentAt));

        return abs($off) > self::CLOCK_TOLERANCE_MS ? $off : null;
    }
}
