<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * What the check of a record found.
 */
final readonly class Verification
{
    /**
     * @param  string  $state   `whole`, `open` (not sealed) or `broken`
     * @param  int  $events  how many events fit
     * @param  ?int  $at      the sequence of the first event that does not fit
     * @param  ?string  $why     what does not fit
     * @param  ?string  $head    the hash of the last event
     * @param  list<string>  $removed what was taken out with its trace: hashes of files, and events by their number
     */
    private function __construct(
        public string $state,
        public int $events,
        public ?int $at = null,
        public ?string $why = null,
        public ?string $head = null,
        public array $removed = [],
    ) {}

    /**
     * @param  list<string>  $removed
     */
    public static function whole(int $events, string $head, array $removed): self
    {
        return new self('whole', $events, head: $head, removed: $removed);
    }

    /**
     * @param  list<string>  $removed
     */
    public static function open(int $events, string $head, array $removed): self
    {
        return new self('open', $events, why: 'open, not sealed', head: $head, removed: $removed);
    }

    /**
     * @param  ?int  $fit how many events fit; by default those before it
     */
    public static function broken(int $at, string $why, ?int $fit = null): self
    {
        return new self('broken', $fit ?? $at - 1, $at, $why);
    }
}
