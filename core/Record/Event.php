<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * One thing that happened in an attempt, or to the attempts of a cycle.
 */
final readonly class Event
{
    public const FORMAT = 2;

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
     * @param  'attempt'|'cycle'|'session'  $about      whose chain it stands in
     * @param  array<string, string>  $salts      of each free text of the payload, by path; a text that was removed has none
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
        public array $salts = [],
    ) {}

    /**
     * The same event with a fresh salt for each of its free texts.
     */
    public function salted(): self
    {
        $salts = array_map(static fn(): string => bin2hex(random_bytes(16)), FreeText::in($this->payload));

        return new self(
            $this->attempt,
            $this->sequence,
            $this->kind,
            $this->actor,
            $this->deviceTime,
            $this->serverTime,
            $this->counter,
            $this->payload,
            $this->evidence,
            $this->about,
            $salts,
        );
    }

    /**
     * @return array<string, string> what stands in the bytes for each free text that is there, by path
     */
    public function digests(): array
    {
        $digests = [];
        foreach (array_intersect_key(FreeText::in($this->payload), $this->salts) as $path => $text) {
            $digests[$path] = FreeText::digest($this->salts[$path], $text);
        }

        return $digests;
    }

    /**
     * The event's exact bytes.
     *
     * @param  array<string, string>  $removed the digests of texts that are not there any more, by path
     *
     * @throws NotCanonical when the payload holds what the record cannot
     */
    public function bytes(array $removed = []): string
    {
        $payload = FreeText::digested($this->payload, $removed + $this->digests());

        return CanonicalJson::encode([
            'actor' => $this->actor,
            $this->about => $this->attempt,
            'counter' => $this->counter,
            'device_time' => $this->deviceTime,
            'evidence' => $this->evidence,
            'format' => self::FORMAT,
            'kind' => $this->kind,
            'payload' => [] === $payload ? new \stdClass() : $payload,
            'sequence' => $this->sequence,
            'server_time' => $this->serverTime,
        ]);
    }
}
