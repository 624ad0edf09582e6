<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * One thing that happened in an attempt, or to the attempts of a cycle.
 */
final readonly class Event
{
    public const FORMAT = 1;

    /**
     * @param  string  $attempt    the attempt's id, or the cycle's
     * @param  int  $sequence   1, 2, 3 … in order of arrival at the server
     * @param  string  $kind       such as `verdict_given`
     * @param  ?string  $actor      the person's id; null for the application itself
     * @param  ?int  $deviceTime µs since 1970 by the device's clock; null for acts of the server
     * @param  int  $serverTime µs since 1970
     * @param  ?int  $counter    the device's own counter
     * @param  array<string, mixed>  $payload    what the kind says
     * @param  list<string>  $evidence   SHA-256 of each file, in hex
     * @param  'attempt'|'cycle'  $about      whose chain it stands in
     */
    public function __construct(
        public string $attempt,
        public int $sequence,
        public string $kind,
        public ?string $actor,
        public ?int $deviceTime,
        public int $serverTime,
        public ?int $counter,
        public array $payload = [],
        public array $evidence = [],
        public string $about = 'attempt',
    ) {}

    /**
     * The event's exact bytes.
     *
     * @throws NotCanonical when the payload holds what the record cannot
     */
    public function bytes(): string
    {
        return CanonicalJson::encode([
            'actor' => $this->actor,
            $this->about => $this->attempt,
            'counter' => $this->counter,
            'device_time' => $this->deviceTime,
            'evidence' => $this->evidence,
            'format' => self::FORMAT,
            'kind' => $this->kind,
            'payload' => [] === $this->payload ? new \stdClass() : $this->payload,
            'sequence' => $this->sequence,
            'server_time' => $this->serverTime,
        ]);
    }
}
