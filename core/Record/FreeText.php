<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * What people wrote, in an event. It stands there only as the SHA-256 of a salt, a line end and the text; salt and text lie
 * beside the bytes and go together when the text is removed, so that the bytes, and all that they prove, stay.
 *
 * Every text is free text but those that the application itself chose from a few: a new field cannot be forgotten.
 */
final class FreeText
{
    /** What stands where a text was. */
    public const REMOVED = '(removed)';

    /** Fields that only the application fills, and not with words of a person. */
    private const CODES = ['kind', 'key', 'media_type', 'source'];

    /** Values that stand in the same fields as words do: verdicts and the states of cycles. */
    private const VALUES = [
        'pass',
        'fail',
        'blocked',
        'not_applicable',
        'not_run',
        'draft',
        'in_review',
        'released',
        'closed',
        'abandoned',
    ];

    /** Ids and hashes. */
    private const MADE = '/^([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}|[0-9a-f]{64})$/D';

    /**
     * The digest under which a text stands in an event.
     *
     * @param  string  $salt at least 16 random bytes, in hex: short texts could be guessed without it
     */
    public static function digest(string $salt, string $text): string
    {
        return hash('sha256', "{$salt}\n{$text}");
    }

    /**
     * @param  array<string, string>  $texts by path
     * @param  array<string, string>  $salts of each of them, by path
     *
     * @return list<string> the digests under which they stand
     */
    public static function digestsOf(array $texts, array $salts): array
    {
        return array_map(static fn(string $path): string => self::digest($salts[$path], $texts[$path]), array_keys($texts));
    }

    /**
     * @param  array<array-key, mixed>  $payload
     *
     * @return array<string, string> each free text by its path, such as `happened` or `rows.0.word`
     */
    public static function in(array $payload, string $under = ''): array
    {
        $texts = [];
        foreach ($payload as $key => $value) {
            $value = $value instanceof \stdClass ? get_object_vars($value) : $value;
            if (\is_array($value)) {
                $texts += self::in($value, "{$under}{$key}.");
            } elseif (\is_string($value) && self::isFree((string) $key, $value)) {
                $texts["{$under}{$key}"] = $value;
            }
        }

        return $texts;
    }

    /**
     * The payload as its bytes have it.
     *
     * @param  array<array-key, mixed>  $payload
     * @param  array<string, string>  $digests by path
     *
     * @return array<array-key, mixed>
     */
    public static function digested(array $payload, array $digests, string $under = ''): array
    {
        foreach ($payload as $key => $value) {
            $path = "{$under}{$key}";
            if (isset($digests[$path])) {
                $payload[$key] = ['text' => $digests[$path]];
            } elseif ($value instanceof \stdClass && [] !== get_object_vars($value)) {
                $payload[$key] = self::digested(get_object_vars($value), $digests, "{$path}.");
            } elseif (\is_array($value) && [] !== $value) {
                $payload[$key] = self::digested($value, $digests, "{$path}.");
            }
        }

        return $payload;
    }

    /**
     * The payload without some of its texts.
     *
     * @param  array<array-key, mixed>  $payload
     * @param  array<string, string>  $texts by path
     *
     * @return array<array-key, mixed>
     */
    public static function replaced(array $payload, array $texts, string $under = ''): array
    {
        foreach ($payload as $key => $value) {
            $path = "{$under}{$key}";
            if (isset($texts[$path])) {
                $payload[$key] = self::REMOVED;
            } elseif ($value instanceof \stdClass) {
                $payload[$key] = (object) self::replaced(get_object_vars($value), $texts, "{$path}.");
            } elseif (\is_array($value)) {
                $payload[$key] = self::replaced($value, $texts, "{$path}.");
            }
        }

        return $payload;
    }

    /**
     * The digests that stand in the payload of an event's bytes, by path.
     *
     * @param  array<array-key, mixed>  $payload as JSON has it
     *
     * @return array<string, string>
     */
    public static function digests(array $payload, string $under = ''): array
    {
        $digests = [];
        foreach ($payload as $key => $value) {
            if (!\is_array($value)) {
                continue;
            }
            if (['text'] === array_keys($value) && \is_string($value['text'])) {
                $digests["{$under}{$key}"] = $value['text'];
            } else {
                $digests += self::digests($value, "{$under}{$key}.");
            }
        }

        return $digests;
    }

    private static function isFree(string $key, string $value): bool
    {
        return '' !== $value &&
            !\in_array($key, self::CODES, true) &&
            !\in_array($value, self::VALUES, true) &&
            1 !== preg_match(self::MADE, $value);
    }
}
