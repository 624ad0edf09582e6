<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * A session as one text in Markdown: what was explored, what the time went to, what was found, and what happened when.
 */
final readonly class SheetText
{
    private const HEADINGS = [['issue', 'Issues'], ['question', 'Questions'], ['risk', 'Risks'], ['idea', 'Ideas for the next']];

    /**
     * @param  string  $mission with what, to find what; empty: not said
     * @param  array<string, string>  $facts by their names; empty ones are left out
     * @param  list<SessionLine>  $lines what was written, in order, and trouble
     * @param  array<string, list<string>>  $links keys of what came of lines, by line
     * @param  array<string, string>  $files names of captures, by line
     */
    public function __construct(
        private string $key,
        private string $title,
        private string $mission,
        private array $facts,
        private TimeShares $shares,
        private array $lines,
        private array $links,
        private array $files,
        private int $observed,
        private string $covered,
        private string $remarks,
    ) {}

    public function markdown(): string
    {
        $parts = ["# {$this->key} {$this->title}"];
        if ('' !== $this->mission) {
            $parts[] = "Explore {$this->mission}.";
        }
        $facts = array_filter($this->facts, static fn(string $v): bool => '' !== $v);
        $parts[] = implode("\n", array_map(static fn(string $k, string $v): string => "- **{$k}:** {$v}", array_keys($facts), $facts));
        $parts[] = "## Time\n\n" . implode("\n", array_map(self::shares(...), [$this->shares->focus, $this->shares->work]));
        foreach ([['Covered', $this->covered], ['Remarks', $this->remarks]] as [$heading, $text]) {
            if ('' !== trim($text)) {
                $parts[] = "## {$heading}\n\n" . trim($text);
            }
        }
        foreach (self::HEADINGS as [$kind, $heading]) {
            $found = array_filter($this->lines, static fn(SessionLine $l): bool => $kind === $l->kind->value);
            if ([] !== $found) {
                $parts[] = "## {$heading}\n\n" . implode("\n", array_map($this->line(...), $found));
            }
        }
        if ([] !== $this->lines) {
            $parts[] =
                "## What happened\n\n" .
                implode("\n", array_map(fn(SessionLine $l): string => $this->line($l, ucfirst($l->kind->value) . ': '), $this->lines));
        }
        if ($this->observed > 0) {
            $parts[] = "{$this->observed} acts were observed beside.";
        }

        return implode("\n\n", array_filter($parts)) . "\n";
    }

    private function line(SessionLine $line, string $before = ''): string
    {
        $text = trim(str_replace("\n", "\n  ", trim($line->words)));
        $file = $this->files[$line->id] ?? '';
        $all = trim($text . ('' === $file ? '' : " ({$file})"));
        $links = $this->links[$line->id] ?? [];

        return '- ' . self::clock($line->atMs) . " {$before}{$all}" . ([] === $links ? '' : ' → ' . implode(', ', $links));
    }

    /**
     * @param  array<string, int>  $shares ms by name
     */
    private static function shares(array $shares): string
    {
        $all = array_sum($shares);
        $words = [];
        foreach ($shares as $name => $ms) {
            $percent = 0 === $all ? 0 : (int) round((100 * $ms) / $all);
            $words[] = str_replace('_', ' ', $name) . ' ' . self::clock($ms) . " ({$percent} %)";
        }

        return '- ' . implode(', ', $words);
    }

    /**
     * Such as 1:05:09 or 5:09.
     */
    public static function clock(int $ms): string
    {
        $s = intdiv($ms, 1000);
        $rest = \sprintf('%02d', $s % 60);

        return $s >= 3600 ? \sprintf('%d:%02d:%s', intdiv($s, 3600), intdiv($s, 60) % 60, $rest) : intdiv($s, 60) . ":{$rest}";
    }
}
