<?php

declare(strict_types=1);

namespace LucidStep\Core\Text;

/**
 * A word of why, where one is asked for: long enough to say something.
 */
final class Why
{
    /** In graphemes, after trimming. */
    public const SHORTEST = 3;

    public static function isGiven(?string $text): bool
    {
        return (int) grapheme_strlen(trim((string) $text)) >= self::SHORTEST;
    }
}
