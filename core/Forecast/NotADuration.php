<?php

declare(strict_types=1);

namespace LucidStep\Core\Forecast;

/**
 * A text that is no usable length of time; the message shows what is accepted.
 */
final class NotADuration extends \InvalidArgumentException
{
    private const ACCEPTED = 'Write it like 90s, 12m, 1h 20m, 1.5h, 1:30 (min:s), 1:05:00 or 15 (minutes).';

    public static function unread(string $text): self
    {
        return new self(\sprintf('"%s" is not a length of time. %s', mb_strimwidth($text, 0, 40, '…'), self::ACCEPTED));
    }

    public static function notPositive(string $text): self
    {
        return new self(\sprintf('"%s" is not above zero. %s', $text, self::ACCEPTED));
    }

    public static function tooLong(string $text): self
    {
        return new self(\sprintf('"%s" is over 24 hours. %s', $text, self::ACCEPTED));
    }

    public static function partTooLarge(string $text): self
    {
        return new self(\sprintf('"%s" has a part over 59 after the first. %s', $text, self::ACCEPTED));
    }
}
