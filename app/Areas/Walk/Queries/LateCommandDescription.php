<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

/**
 * Says what an act that arrived too late would do, so that a lead can judge it without opening anything.
 */
final class LateCommandDescription
{
    /** What a person wrote is cut here, in characters. */
    private const LONGEST = 140;

    /**
     * @param  string  $kind of the event
     * @param  array<string, mixed>  $p what was kept of it
     */
    public static function of(string $kind, array $p): string
    {
        $text = static fn (string $key): string => trim((string) ($p[$key] ?? ''));
        $where = isset($p['step']) ? (($p['round'] ?? 1) > 1 ? "Round {$p['round']}, step {$p['step']}" : "Step {$p['step']}") : (isset($p['round']) ? "Round {$p['round']}" : 'The attempt');
        $said = match ($kind) {
            'verdict_given' => self::verdict($text('verdict')).self::quoted($text('happened'), $text('reason'), '' === $text('waits_on') ? '' : 'waits on '.$text('waits_on')),
            'note_written' => '' === $text('note') ? 'note taken away' : 'note'.self::quoted($text('note')),
            'tried' => 'a try that '.(($p['failed'] ?? false) ? 'failed' : 'went well'),
            'round_skip' => 'left out'.self::quoted($text('reason')),
            'round_take_up' => 'taken up again',
            'round_repeat' => 'walked once more',
            'away_decided' => self::minutes($p['counted_ms'] ?? 0).' of '.self::minutes($p['away_ms'] ?? 0).' away count as work',
            'surroundings_said' => 'what it was walked on'.self::quoted($text('environment')),
            'evidence_added' => 'evidence'.self::quoted($text('name')),
            'evidence_captioned' => 'caption'.self::quoted($text('to')),
            'evidence_moved' => 'evidence moved here',
            'evidence_marked' => 'a picture drawn on',
            'evidence_redacted' => 'a part of a picture hidden',
            'evidence_removed' => 'evidence taken off',
            'finished' => 'finished'.('' === $text('verdict') ? ' as its steps say' : ' as '.self::verdict($text('verdict'))).self::quoted($text('note')),
            default => str_replace('_', ' ', $kind),
        };

        return "{$where}: {$said}";
    }

    private static function verdict(string $verdict): string
    {
        return 'not_run' === $verdict ? 'verdict taken back' : str_replace('_', ' ', $verdict);
    }

    private static function quoted(string ...$texts): string
    {
        $words = implode(', ', array_filter($texts, static fn (string $t): bool => '' !== $t));
        $words = mb_strlen($words) > self::LONGEST ? mb_substr($words, 0, self::LONGEST - 1).'…' : $words;

        return '' === $words ? '' : ", “{$words}”";
    }

    private static function minutes(mixed $milliseconds): string
    {
        return intdiv((int) $milliseconds + 30_000, 60_000).' min';
    }
}
