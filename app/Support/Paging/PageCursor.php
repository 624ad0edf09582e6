<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Paging;

use Illuminate\Support\Str;

/**
 * Where a page of a list ended: the values that its last line is ordered by, as text for an address.
 */
final class PageCursor
{
    /**
     * @param  list<scalar|null>  $values
     */
    public static function encode(array $values): string
    {
        return rtrim(strtr(base64_encode(json_encode($values, \JSON_THROW_ON_ERROR)), '+/', '-_'), '=');
    }

    /**
     * @param  int  $count so many values are expected
     *
     * @return ?list<scalar|null> null: the text says nothing of that kind
     */
    public static function decode(string $text, int $count): ?array
    {
        $values = json_decode(base64_decode(strtr($text, '-_', '+/'), true) ?: '', true);
        if (!\is_array($values) || !array_is_list($values) || \count($values) !== $count) {
            return null;
        }
        $plain = array_values(array_filter($values, static fn(mixed $v): bool => null === $v || \is_scalar($v)));

        return \count($plain) === $count ? $plain : null;
    }

    /**
     * Whether a value of a cursor can stand where the database expects a type: what somebody made up begins at the start.
     *
     * @param  'integer'|'number'|'text'|'uuid'|'time'  $type
     */
    public static function fits(mixed $value, string $type): bool
    {
        return match ($type) {
            'integer' => \is_int($value),
            'number' => is_numeric($value) && is_finite((float) $value),
            'text' => \is_string($value) && mb_check_encoding($value, 'UTF-8') && !str_contains($value, "\0"),
            'uuid' => \is_string($value) && Str::isUuid($value),
            'time' => \is_string($value) &&
                1 ===
                    preg_match('/^(\d{4})-(\d\d)-(\d\d) ([01]\d|2[0-3]):[0-5]\d:[0-5]\d(\.\d{1,6})?([+-]\d\d(:?\d\d)?)?$/D', $value, $m) &&
                checkdate((int) $m[2], (int) $m[3], (int) $m[1]),
        };
    }
}
