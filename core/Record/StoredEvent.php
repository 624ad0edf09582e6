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
     */
    public function __construct(public Event $event, public string $bytes, public string $hash) {}

    /**
     * @return array<string, array{salt: string, text: string}> its free texts that are there, by path
     */
    public function texts(): array
    {
        $texts = [];
        foreach (array_intersect_key(FreeText::in($this->event->payload), $this->event->salts) as $path => $text) {
            $texts[$path] = ['salt' => $this->event->salts[$path], 'text' => $text];
        }

        return $texts;
    }
}
