<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * A defect as one text, to carry elsewhere: facts, how to get there, what was expected and what happened instead.
 */
final readonly class Report
{
    /**
     * @param  array<string, string>  $facts by their names; empty ones are left out
     * @param  string  $steps numbered as in the case, in Markdown
     * @param  string  $body  what else there is, in Markdown
     */
    public function __construct(
        public array $facts,
        public string $preconditions,
        public string $steps,
        public string $expected,
        public string $actual,
        public string $body = '',
    ) {}

    public function markdown(): string
    {
        return $this->text('- **%s:** %s', '## %s');
    }

    /**
     * The same without marks, headings in capitals.
     */
    public function plain(): string
    {
        $text = (string) preg_replace_callback(
            '/^#+ (.*)$/m',
            static fn(array $heading): string => mb_strtoupper($heading[1]),
            $this->text('%s: %s', '## %s'),
        );

        return (string) preg_replace('/\*\*(.+?)\*\*/', '$1', $text);
    }

    private function text(string $fact, string $heading): string
    {
        $facts = array_filter($this->facts, static fn(string $value): bool => '' !== $value);
        $parts = [];
        if ([] !== $facts) {
            $lines = array_map(static fn(string $k, string $v): string => \sprintf($fact, $k, $v), array_keys($facts), $facts);
            $parts[] = implode("\n", $lines);
        }
        $sections = [
            'Preconditions' => $this->preconditions,
            'Steps' => $this->steps,
            'Expected' => $this->expected,
            'Actual' => $this->actual,
        ];
        foreach ($sections as $name => $text) {
            if ('' !== trim($text)) {
                $parts[] = \sprintf($heading, $name) . "\n\n" . rtrim(ltrim($text, "\n"));
            }
        }
        if ('' !== trim($this->body)) {
            $parts[] = trim($this->body);
        }

        return implode("\n\n", $parts) . "\n";
    }
}
