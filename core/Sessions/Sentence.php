<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * Observed acts as sentences that somebody can follow (rules of the job, 8).
 */
final class Sentence
{
    /** What a control is called is cut there. */
    public const LONGEST = 80;

    public static function of(SessionLine $line): string
    {
        $name = self::quoted($line->control);

        return match ($line->kind) {
            LineKind::Visit => match ($line->reached) {
                Reached::Back => 'Go back to ',
                Reached::Reload => 'Reload ',
                default => 'Open ',
            } . self::quoted((string) $line->page),
            LineKind::Press => "Press {$name}",
            LineKind::Type => null === $line->value
                ? "Type something into {$name}"
                : 'Type ' . self::quoted($line->value) . " into {$name}",
            LineKind::Choose => null === $line->value
                ? "Choose something in {$name}"
                : 'Choose ' . self::quoted($line->value) . " in {$name}",
            LineKind::Tick => ('' === $line->value ? 'Untick ' : 'Tick ') . $name,
            LineKind::Submit => '' === $line->control ? 'Send the form' : "Send {$name}",
            LineKind::Trouble => "Trouble: {$line->words}",
            default => $line->words,
        };
    }

    private static function quoted(string $text): string
    {
        $plain = trim((string) preg_replace('/\s+/u', ' ', $text));

        return '"' . (mb_strlen($plain) > self::LONGEST ? mb_substr($plain, 0, self::LONGEST - 1) . '…' : $plain) . '"';
    }
}
