<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Paging;

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
}
