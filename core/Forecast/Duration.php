<?php

declare(strict_types=1);

namespace LucidStep\Core\Forecast;

/**
 * A length of time as people type it, in whole milliseconds.
 */
final readonly class Duration
{
    public const LONGEST_MS = 24 * 3_600_000;

    private const NUMBER = '(\d{1,6}(?:[.,]\d{1,4})?)';

    private function __construct(public int $milliseconds) {}

    /**
     * Reads `90s`, `12m`, `1h 20m`, `1h20`, `1 h 20 min`, `1.5h`, `2,5h`, `1:30` (minutes and seconds),
     * `1:05:00` (hours, minutes, seconds) or a bare `15` (minutes).
     *
     * @throws NotADuration when it is none of these, not above zero, over 24 hours, or a part after the first is over 59
     */
    public static function fromText(string $text): self
    {
        $clean = mb_strtolower(trim($text));
        if ('' === $clean) {
            throw NotADuration::unread($text);
        }
        $seconds = self::colons($clean, $text) ?? (self::units($clean, $text) ?? throw NotADuration::unread($text));

        return self::fromMilliseconds((int) round($seconds * 1000), $text);
    }

    /**
     * @throws NotADuration when it is not above zero, or over 24 hours
     */
    public static function fromMilliseconds(int $milliseconds, ?string $text = null): self
    {
        $text ??= "{$milliseconds} ms";
        if ($milliseconds <= 0) {
            throw NotADuration::notPositive($text);
        }
        if ($milliseconds > self::LONGEST_MS) {
            throw NotADuration::tooLong($text);
        }

        return new self($milliseconds);
    }

    /**
     * In words, such as "1h 20m", "12m" or "45s"; reads back to the same whole second.
     */
    public function toText(): string
    {
        $seconds = intdiv($this->milliseconds + 500, 1000);
        $parts = array_filter([
            intdiv($seconds, 3600) > 0 ? intdiv($seconds, 3600) . 'h' : '',
            intdiv($seconds % 3600, 60) > 0 ? intdiv($seconds % 3600, 60) . 'm' : '',
            $seconds % 60 > 0 ? $seconds % 60 . 's' : '',
        ]);

        return [] === $parts ? '0s' : implode(' ', $parts);
    }

    /**
     * A length of time for people, to the minute from one minute on: "45s", "12m", "1h 20m", "120h".
     */
    public static function rounded(int $milliseconds): string
    {
        if (0 === $milliseconds) {
            return '0m';
        }
        $seconds = intdiv($milliseconds + 500, 1000);
        $minutes = intdiv($seconds + 30, 60);
        [$hours, $rest] = [intdiv($minutes, 60), $minutes % 60];

        return match (true) {
            $seconds < 60 => "{$seconds}s",
            0 === $hours => "{$minutes}m",
            0 === $rest || $hours >= 100 => "{$hours}h",
            default => "{$hours}h {$rest}m",
        };
    }

    private static function colons(string $clean, string $text): ?float
    {
        if (1 !== preg_match('/^(\d{1,5}):(\d{1,2})(?::(\d{1,2}))?$/', $clean, $m)) {
            return null;
        }
        $parts = array_map(intval(...), \array_slice($m, 1));
        if (max(\array_slice($parts, 1)) > 59) {
            throw NotADuration::partTooLarge($text);
        }

        return (float) (3 === \count($parts) ? $parts[0] * 3600 + $parts[1] * 60 + $parts[2] : $parts[0] * 60 + $parts[1]);
    }

    private static function units(string $clean, string $text): ?float
    {
        $h = '(?:h|hr|hrs|hours?)';
        $m = '(?:m|min|mins|minutes?)';
        $s = '(?:s|sec|secs|seconds?)';
        $number = self::NUMBER;
        if (1 === preg_match("/^{$number}$/", $clean, $found)) {
            return self::number($found[1]) * 60;
        }
        $pattern = "/^(?:{$number}\\s*{$h})?\\s*(?:{$number}\\s*{$m})?\\s*(?:{$number}\\s*{$s})?$/";
        if (1 === preg_match("/^{$number}\\s*{$h}\\s*(\\d{1,6})$/", $clean, $found)) {
            $given = [self::number($found[1]), (float) $found[2], null];
        } elseif (1 === preg_match($pattern, $clean, $found, \PREG_UNMATCHED_AS_NULL)) {
            $given = array_map(static fn(?string $n): ?float => null === $n ? null : self::number($n), [
                $found[1] ?? null,
                $found[2] ?? null,
                $found[3] ?? null,
            ]);
        } else {
            return null;
        }
        $total = 0.0;
        $first = true;
        foreach ([3600, 60, 1] as $i => $size) {
            if (null === $given[$i]) {
                continue;
            }
            if (!$first && $given[$i] >= 60) {
                throw NotADuration::partTooLarge($text);
            }
            $total += $given[$i] * $size;
            $first = false;
        }

        return $first ? null : $total;
    }

    private static function number(string $text): float
    {
        return (float) str_replace(',', '.', $text);
    }
}
