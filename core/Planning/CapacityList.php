<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

use LucidStep\Core\Forecast\Duration;
use LucidStep\Core\Forecast\NotADuration;

/**
 * Reads a list of people's time, as it is pasted or comes from a table: a person by mail address or name, how much they walk a day,
 * and the days they are away, one by one or from one to another. Several lines may tell of the same person.
 */
final class CapacityList
{
    public const MOST = 5000;

    /** No leave in one line is longer, in days. */
    private const LONGEST = 400;

    private const MINUTES_OF_A_DAY = 1440;

    private const DAY = '\d{4}-\d{2}-\d{2}';

    /** Heads of tables, which tell of nobody. */
    private const HEADS = ['person', 'name', 'mail', 'e-mail', 'email', 'time a day', 'time', 'days off', 'from', 'to', 'away'];

    /**
     * @return list<CapacityLine> without empty lines and the head of a table
     */
    public static function read(string $text): array
    {
        $lines = [];
        foreach (preg_split('/\r\n|\r|\n/', str_replace("\u{FEFF}", '', $text)) ?: [] as $at => $raw) {
            $typed = trim($raw);
            $cells = array_values(array_filter(self::cells($typed), static fn(string $c): bool => '' !== $c));
            if ([] !== $cells && [] !== array_diff(array_map(mb_strtolower(...), $cells), self::HEADS)) {
                $lines[] = self::line($at + 1, mb_strimwidth($typed, 0, 400), $cells);
            }
        }

        return $lines;
    }

    /**
     * @param  non-empty-list<string>  $cells
     */
    private static function line(int $number, string $typed, array $cells): CapacityLine
    {
        $person = array_shift($cells);
        // From a table a leave comes as two cells, its first day and its last.
        $rest = preg_replace('/(^|;)(' . self::DAY . ');(' . self::DAY . ')$/D', '$1$2..$3', implode(';', $cells)) ?? '';
        $minutes = null;
        $days = [];
        foreach (array_filter(explode(';', $rest), static fn(string $c): bool => '' !== $c) as $cell) {
            $read = self::days($cell);
            if (\is_string($read)) {
                return new CapacityLine($number, $typed, $person, problem: $read);
            }
            if (null === $read) {
                $found = self::minutes($cell);
                if (null === $found || null !== $minutes) {
                    $why =
                        null === $found
                            ? "“{$cell}” is neither a time a day, such as 6h, nor a day, such as 2026-12-24."
                            : 'There are two times a day in this line.';

                    return new CapacityLine($number, $typed, $person, problem: $why);
                }
                $minutes = $found;
            } else {
                $days = [...$days, ...$read];
            }
        }
        sort($days);
        $days = array_values(array_unique($days));
        $nothing = null === $minutes && [] === $days ? 'This line says neither how much a day nor when they are away.' : null;

        return new CapacityLine($number, $typed, $person, $minutes, $days, $nothing);
    }

    /**
     * @return list<string>
     */
    private static function cells(string $line): array
    {
        $by = match (true) {
            str_contains($line, "\t") => "\t",
            str_contains($line, ';') => ';',
            default => ',',
        };

        return array_map(static fn(?string $cell): string => trim((string) $cell), str_getcsv($line, $by, '"', ''));
    }

    /**
     * @return ?int null when it is no time of a day
     */
    private static function minutes(string $cell): ?int
    {
        if (1 === preg_match('/^0\s*(m|min|h)?$/D', $cell)) {
            return 0;
        }
        try {
            $minutes = intdiv(Duration::fromText($cell)->milliseconds, 60_000);
        } catch (NotADuration) {
            return null;
        }

        return $minutes > 0 && $minutes <= self::MINUTES_OF_A_DAY ? $minutes : null;
    }

    /**
     * @return list<string>|string|null the days; why they are none; null when the cell tells of no days
     */
    private static function days(string $cell): array|string|null
    {
        if (
            1 !==
            preg_match('/^' . self::DAY . '(?:(?:\s*(?:\.\.|–|—|to)\s*|\s+-\s+)' . self::DAY . '|(?:[\s,]+' . self::DAY . ')*)$/uD', $cell)
        ) {
            return null;
        }
        preg_match_all('/' . self::DAY . '/', $cell, $found);
        foreach ($found[0] as $day) {
            if (!checkdate((int) substr($day, 5, 2), (int) substr($day, 8, 2), (int) substr($day, 0, 4))) {
                return "There is no {$day}.";
            }
        }
        if (1 === preg_match('/^' . self::DAY . '[\s,]+' . self::DAY . '/', $cell) || 1 === \count($found[0])) {
            return $found[0];
        }
        [$first, $last] = [new \DateTimeImmutable($found[0][0]), new \DateTimeImmutable($found[0][1])];
        $length = (int) $first->diff($last)->format('%r%a');
        if ($length < 0 || $length >= self::LONGEST) {
            return $length < 0 ? "{$found[0][1]} is before {$found[0][0]}." : 'This is more than ' . self::LONGEST . ' days.';
        }

        return array_map(static fn(int $n): string => $first->modify("+{$n} days")->format('Y-m-d'), range(0, $length));
    }
}
