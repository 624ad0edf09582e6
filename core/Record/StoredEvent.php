<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * An event as it lies in storage: its fields, its exact bytes and its hash.
 */
final readonly class StoredEvent
{
    /**
     * @param  string  $bytes the canonical bytes, as written
     * @param  string  $hash  SHA-256 in hex
     * @param  bool  $removed whether its text was taken out, with its trace: its hash stands, its bytes are gone
     */
    public function __construct(public Event $event, public string $bytes, public string $hash, public bool $removed = false) {}
}
