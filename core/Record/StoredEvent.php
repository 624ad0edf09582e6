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

    /**
     * The event again from its bytes and the texts beside them. A text that is not there reads as removed.
     *
     * @param  array<string, array{salt: string, text: string}>  $texts by path
     *
     * @throws \JsonException when the bytes are no JSON
     */
    public static function read(string $bytes, string $hash, array $texts): self
    {
        $e = (array) json_decode($bytes, true, 64, \JSON_THROW_ON_ERROR);
        /** @var array<string, mixed> $payload */
        $payload = (array) ($e['payload'] ?? []);
        foreach (FreeText::digests($payload) as $path => $digest) {
            $payload = self::put($payload, explode('.', $path), $texts[$path]['text'] ?? FreeText::REMOVED);
        }
        $whole = static fn(string $field): ?int => \is_int($e[$field] ?? null) ? $e[$field] : null;
        $word = static fn(string $field): ?string => \is_string($e[$field] ?? null) ? $e[$field] : null;
        $about = isset($e['cycle']) ? 'cycle' : 'attempt';

        return new self(
            new Event(
                (string) $word($about),
                (int) $whole('sequence'),
                (string) $word('kind'),
                $word('actor'),
                $whole('device_time'),
                (int) $whole('server_time'),
                $whole('counter'),
                $payload,
                array_values(array_filter((array) ($e['evidence'] ?? []), is_string(...))),
                $about,
                array_map(static fn(array $t): string => $t['salt'], $texts),
            ),
            $bytes,
            $hash,
        );
    }

    /**
     * @param  array<array-key, mixed>  $in
     * @param  list<string>  $path
     *
     * @return array<string, mixed>
     */
    private static function put(array $in, array $path, string $text): array
    {
        /** @var array<string, mixed> $in */
        $key = array_shift($path) ?? '';
        $in[$key] = [] === $path ? $text : self::put((array) ($in[$key] ?? []), $path, $text);

        return $in;
    }
}
