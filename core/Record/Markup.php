<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * What was drawn on a picture, as the record names it.
 */
final class Markup
{
    /**
     * Its SHA-256, whatever the order of its fields: the database gives them back in another one.
     *
     * @param  array<array-key, mixed>  $markup
     */
    public static function hash(array $markup): string
    {
        return hash('sha256', (string) json_encode(self::sorted($markup), \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES));
    }

    /**
     * @param  array<array-key, mixed>  $values
     *
     * @return array<array-key, mixed>
     */
    private static function sorted(array $values): array
    {
        if (!array_is_list($values)) {
            ksort($values);
        }

        return array_map(static fn(mixed $v): mixed => \is_array($v) ? self::sorted($v) : $v, $values);
    }
}
