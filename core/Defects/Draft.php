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

    /**
     * @param  string  $steps numbered as in the case, with their verdicts, in Markdown
     * @param  string  $body  the data it was walked with, what was captured and where it came from, in Markdown
     */
    private function __construct(
        public string $title,
        public string $preconditions,
        public string $steps,
        public string $expected,
        public string $actual,
        public string $environment,
        public string $body,
        private string $build,
        private string $configuration,
    ) {}

    public static function from(Failure $failure): self
    {
        $failing = $failure->failingStep();

        return new self(
            self::title($failure->caseTitle, $failure->happened),
            trim($failure->preconditions),
            implode("\n", array_map(self::step(...), $failure->reproduction())),
            null === $failing ? '' : $failing->expected,
            null === $failing ? '' : trim($failure->happened),
            $failure->environment,
            self::rest($failure),
            $failure->build,
            $failure->configuration,
        );
    }

    /**
     * Of a stretch of a session: the way there is what its lines say, and what was expected is not known.
     *
     * @param  string  $charter  what was explored
     * @param  string  $happened what the marked line says
     * @param  list<string>  $pages    that were open, the last last
     * @param  list<string>  $trouble  that was seen on the way
     */
    public static function ofStretch(string $charter, string $happened, string $environment, array $pages, array $trouble): self
    {
        $parts = [];
        foreach (['Pages' => $pages, 'Trouble seen' => $trouble] as $name => $lines) {
            if ([] !== $lines) {
                $parts[] = "## {$name}\n\n" . implode("\n", array_map(static fn(string $l): string => '- ' . self::line($l), $lines));
            }
        }

        return new self(self::title($charter, $happened), '', '', '', trim($happened), $environment, implode("\n\n", $parts), '', '');
    }

    /**
     * @return array<string, string> what is filed, by {@see DefectField}
     */
    public function fields(): array
    {
        return [
            DefectField::Title->value => $this->title,
            DefectField::Preconditions->value => $this->preconditions,
            DefectField::Steps->value => $this->steps,
            DefectField::Expected->value => $this->expected,
            DefectField::Actual->value => $this->actual,
            DefectField::Environment->value => $this->environment,
            DefectField::Body->value => $this->body,
        ];
    }

    /**
     * All of it as one text.
     */
    public function report(): Report
    {
        return new Report(
            ['Build' => $this->build, 'Configuration' => $this->configuration, 'Environment' => $this->environment],
            $this->preconditions,
            $this->steps,
            $this->expected,
            $this->actual,
            $this->body,
        );
    }

    /**
     * Sentences as the steps of a defect: numbered, in Markdown.
     *
     * @param  list<string>  $sentences
     */
    public static function numbered(array $sentences): string
    {
        $step = static fn(string $words, int $at): string => self::numberedStep($at + 1, $words);

        return implode("\n", array_map($step, $sentences, array_keys($sentences)));
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

    private static function rest(Failure $failure): string
    {
        $row = $failure->dataRow;
        $values = array_map(
            static fn(string $name, string $value): string => "- {$name} = " . ('' === $value ? '(empty)' : $value),
            array_keys($row),
            $row,
        );
        $bullets = array_map(static fn(array $lines): array => array_map(static fn(string $line): string => "- {$line}", $lines), [
            'Evidence' => $failure->evidence,
            'Links' => $failure->links,
        ]);
        $parts = [];
        foreach (['Data row' => $values, ...$bullets] as $name => $lines) {
            if ([] !== $lines) {
                $parts[] = "## {$name}\n\n" . implode("\n", $lines);
            }
        }

        return implode("\n\n", $parts);
    }

    private static function step(WalkedStep $step): string
    {
        $data = '' === trim($step->data) ? '' : "\nData: " . trim($step->data);

        return self::numberedStep($step->number, trim($step->action) . $data . " ({$step->outcome()})");
    }

    /**
     * Its lines stand below each other, as Markdown has them.
     */
    private static function numberedStep(int $number, string $words): string
    {
        $indent = str_repeat(' ', \strlen((string) $number) + 2);

        return "{$number}. " . str_replace("\n", "\n{$indent}", trim($words));
    }
}
