<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * A defect drafted from what was walked: nothing in it is invented.
 */
final readonly class Draft
{
    private const TITLE = 120;

    private const CASE_PART = 60;

    private const DASH = ' – ';

    private function __construct(
        public string $title,
        public string $expected,
        public string $actual,
        public string $markdown,
        public string $plain,
    ) {}

    public static function from(Failure $failure): self
    {
        $failing = $failure->failingStep();
        $expected = null === $failing ? '' : $failing->expected;
        $actual = null === $failing ? '' : trim($failure->happened);

        return new self(
            self::title($failure->caseTitle, $failure->happened),
            $expected,
            $actual,
            self::body($failure, $expected, $actual, true),
            self::body($failure, $expected, $actual, false),
        );
    }

    /**
     * The case's title (cut to 60), a dash, what happened (first sentence, cut at a word; a single longer
     * word is cut hard); at most 120 graphemes in all.
     */
    public static function title(string $caseTitle, string $happened): string
    {
        $case = self::cut(self::line($caseTitle), self::CASE_PART);
        $sentence = preg_split('/(?<=[.!?])\s+|\R/u', trim($happened), 2) ?: [''];
        $what = rtrim(self::line($sentence[0]), '. ');
        if ('' === $what || '' === $case) {
            return '' === $what ? $case : self::cut($what, self::TITLE);
        }

        return $case . self::DASH . self::cut($what, self::TITLE - (int) grapheme_strlen($case . self::DASH));
    }

    private static function line(string $text): string
    {
        return trim((string) preg_replace('/\s+/u', ' ', $text));
    }

    /**
     * Cuts at a word, with an ellipsis, to at most so many graphemes.
     */
    private static function cut(string $text, int $most): string
    {
        if (grapheme_strlen($text) <= $most) {
            return $text;
        }
        $head = (string) grapheme_substr($text, 0, $most - 1);
        $space = strrpos($head, ' ');
        $wordEnds = ' ' === grapheme_substr($text, $most - 1, 1);

        return rtrim(false === $space || $wordEnds ? $head : substr($head, 0, $space), ' ,;:') . '…';
    }

    private static function body(Failure $f, string $expected, string $actual, bool $markdown): string
    {
        $heading = static fn(string $text): string => $markdown ? "## {$text}" : mb_strtoupper($text);
        $parts = [];
        $facts = array_filter([
            'Build' => $f->build,
            'Configuration' => $f->configuration,
            'Environment' => $f->environment,
            'Data row' => implode(
                ', ',
                array_map(
                    static fn(string $k, string $v): string => "{$k} = " . ('' === $v ? '(empty)' : $v),
                    array_keys($f->dataRow),
                    $f->dataRow,
                ),
            ),
        ]);
        if ([] !== $facts) {
            $parts[] = implode(
                "\n",
                array_map(
                    static fn(string $k, string $v): string => $markdown ? "- **{$k}:** {$v}" : "{$k}: {$v}",
                    array_keys($facts),
                    $facts,
                ),
            );
        }
        if ('' !== trim($f->preconditions)) {
            $parts[] = $heading('Preconditions') . "\n\n" . trim($f->preconditions);
        }
        $steps = array_map(static fn(WalkedStep $s): string => self::step($s, $markdown), $f->reproduction());
        if ([] !== $steps) {
            $parts[] = $heading('Steps') . "\n\n" . implode("\n", $steps);
        }
        foreach (['Expected' => $expected, 'Actual' => $actual] as $name => $text) {
            if ('' !== trim($text)) {
                $parts[] = $heading($name) . "\n\n" . trim($text);
            }
        }
        foreach (['Evidence' => $f->evidence, 'Links' => $f->links] as $name => $lines) {
            if ([] !== $lines) {
                $parts[] = $heading($name) . "\n\n" . implode("\n", array_map(static fn(string $l): string => "- {$l}", $lines));
            }
        }

        return implode("\n\n", $parts) . "\n";
    }

    private static function step(WalkedStep $step, bool $markdown): string
    {
        $indent = str_repeat(' ', \strlen((string) $step->number) + 2);
        $text = str_replace("\n", "\n{$indent}", trim($step->action));
        if ('' !== trim($step->data)) {
            $text .= "\n{$indent}Data: " . str_replace("\n", "\n{$indent}", trim($step->data));
        }
        $verdict = $markdown ? "**{$step->verdict->label()}**" : $step->verdict->label();

        return "{$step->number}. {$text} ({$verdict})";
    }
}
