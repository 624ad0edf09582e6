<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * The one way an event is written: same content, same bytes.
 *
 * Objects (keys sorted by byte), lists, strings, integers within ±(2^53−1), true, false, null. No fractions.
 * Only `"`, `\` and control characters are escaped. An empty object is `new \stdClass`, an empty array an empty list.
 */
final class CanonicalJson
{
    private const LARGEST = 9_007_199_254_740_991;

    /**
     * @throws NotCanonical when a value has no canonical form; `path` says where
     */
    public static function encode(mixed $value): string
    {
        return self::write($value, '$');
    }

    private static function write(mixed $value, string $path): string
    {
        return match (true) {
            null === $value => 'null',
            \is_bool($value) => $value ? 'true' : 'false',
            \is_int($value) => abs($value) <= self::LARGEST
                ? (string) $value
                : throw NotCanonical::at($path, 'an integer outside ±(2^53−1)'),
            \is_string($value) => self::text($value, $path),
            \is_array($value) && array_is_list($value) => self::list($value, $path),
            \is_array($value) => self::object($value, $path),
            $value instanceof \stdClass => self::object(get_object_vars($value), $path),
            \is_float($value) => throw NotCanonical::at($path, 'a fraction; times are whole ms or µs'),
            default => throw NotCanonical::at($path, 'a ' . get_debug_type($value)),
        };
    }

    /**
     * @param  list<mixed>  $values
     */
    private static function list(array $values, string $path): string
    {
        $parts = [];
        foreach ($values as $i => $value) {
            $parts[] = self::write($value, "{$path}[{$i}]");
        }

        return '[' . implode(',', $parts) . ']';
    }

    /**
     * @param  array<array-key, mixed>  $values
     */
    private static function object(array $values, string $path): string
    {
        ksort($values, \SORT_STRING);
        $parts = [];
        foreach ($values as $key => $value) {
            if (1 !== preg_match('/^[a-z][a-z0-9_]*$/D', (string) $key)) {
                throw NotCanonical::at($path, "the key \"{$key}\"");
            }
            $parts[] = "\"{$key}\":" . self::write($value, "{$path}.{$key}");
        }

        return '{' . implode(',', $parts) . '}';
    }

    private static function text(string $value, string $path): string
    {
        if (!mb_check_encoding($value, 'UTF-8')) {
            throw NotCanonical::at($path, 'text that is not valid UTF-8');
        }
        if (str_contains($value, "\0")) {
            throw NotCanonical::at($path, 'text with U+0000');
        }

        return json_encode(
            $value,
            \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_LINE_TERMINATORS,
        );
    }
}
