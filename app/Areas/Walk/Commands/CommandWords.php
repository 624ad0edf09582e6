<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Verdict\Verdict;

/**
 * The words in which a command that waits is described.
 */
final class CommandWords
{
    /** What a person wrote is cut here, in characters. */
    private const LONGEST = 140;

    /**
     * @param  ?int  $round from 1; null for the whole attempt
     * @param  ?int  $step  from 1; null for the whole round
     */
    public static function at(?int $round, ?int $step, string $said): string
    {
        $where = match (true) {
            null !== $step && null !== $round && $round > 1 => "Round {$round}, step {$step}",
            null !== $step => "Step {$step}",
            null !== $round => "Round {$round}",
            default => 'The attempt',
        };

        return "{$where}: {$said}";
    }

    /**
     * @return string `, “first, second”`, or nothing when all are empty
     */
    public static function quoted(string ...$texts): string
    {
        $words = implode(', ', array_filter($texts, static fn(string $t): bool => '' !== $t));
        $words = mb_strlen($words) > self::LONGEST ? mb_substr($words, 0, self::LONGEST - 1) . '…' : $words;

        return '' === $words ? '' : ", “{$words}”";
    }

    public static function verdict(Verdict $verdict): string
    {
        return Verdict::NotRun === $verdict ? 'verdict taken back' : str_replace('_', ' ', $verdict->value);
    }
}
