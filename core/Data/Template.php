<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

/**
 * A text with places for values. `{{name}}` and `{{ name }}` are places; names are letters, digits and underscore.
 * `\{{` is literal, `\\` before `{{` is one backslash; anything else that looks like a place is literal, with a warning.
 */
final readonly class Template
{
    /** @var array<array-key, string> the names it asks for as they were typed last, by name in lower case */
    public array $places;

    /**
     * @param  list<string|Placeholder>  $parts
     * @param  list<string>  $warnings
     */
    private function __construct(public array $parts, public array $warnings)
    {
        $places = [];
        foreach ($parts as $part) {
            if ($part instanceof Placeholder) {
                $places[$part->key()] = $part->name;
            }
        }
        $this->places = $places;
    }

    public static function parse(string $text): self
    {
        $parts = [];
        $warnings = [];
        $literal = '';
        $at = 0;
        while (1 === preg_match('/(\\\\*)\{\{/', $text, $found, \PREG_OFFSET_CAPTURE, $at)) {
            [$slashes, $start] = $found[1];
            $open = $start + \strlen($slashes);
            $literal .= substr($text, $at, $start - $at) . str_repeat('\\', intdiv(\strlen($slashes), 2));
            if (1 === \strlen($slashes) % 2) {
                $literal .= '{{';
                $at = $open + 2;

                continue;
            }
            if (1 === preg_match('/\G\{\{\s*([\p{L}\p{N}_]+)\s*\}\}/u', $text, $hole, 0, $open)) {
                if ('' !== $literal) {
                    $parts[] = $literal;
                    $literal = '';
                }
                $parts[] = new Placeholder($hole[1]);
                $at = $open + \strlen($hole[0]);

                continue;
            }
            // Of more braces than two the innermost count.
            if ('{' !== ($text[$open + 2] ?? '')) {
                $warnings[] = self::warning($text, $open);
            }
            $literal .= '{';
            $at = $open + 1;
        }
        $literal .= substr($text, $at);
        if ('' !== $literal) {
            $parts[] = $literal;
        }

        return new self($parts, $warnings);
    }

    /**
     * The names it asks for, in order, each once, in lower case.
     *
     * @return list<string>
     */
    public function names(): array
    {
        return array_map(strval(...), array_keys($this->places));
    }

    /**
     * Fills the values in, in one pass: a value is never filled in again. A name that is not known stays as it was
     * typed; {@see Check} finds those beforehand.
     *
     * @param  array<array-key, string>  $values  by name in lower case
     * @param  list<string>  $secrets names in lower case whose values are secret
     *
     * @return list<FilledPart>
     */
    public function fill(array $values, array $secrets = []): array
    {
        return array_map(
            static fn(string|Placeholder $part): FilledPart => match (true) {
                \is_string($part) => new FilledPart($part),
                \array_key_exists($part->key(), $values) => new FilledPart(
                    $values[$part->key()],
                    $part->name,
                    \in_array($part->key(), $secrets, true),
                ),
                default => new FilledPart('{{' . $part->name . '}}'),
            },
            $this->parts,
        );
    }

    /**
     * The text with its values written in, for many rows of values one after the other: {@see fill()} tells the pieces
     * apart, this only joins them.
     *
     * @param  array<array-key, string>  $values what each name is written as, by name in lower case
     */
    public function write(array $values): string
    {
        $text = '';
        foreach ($this->parts as $part) {
            $text .= \is_string($part) ? $part : $values[$part->key()] ?? '{{' . $part->name . '}}';
        }

        return $text;
    }

    /**
     * Puts texts with places of their own into some of the places.
     *
     * @param  array<string, self>  $values by name in lower case
     */
    public function with(array $values): self
    {
        $parts = [];
        foreach ($this->parts as $part) {
            array_push(
                $parts,
                ...$part instanceof Placeholder && \array_key_exists($part->key(), $values) ? $values[$part->key()]->parts : [$part],
            );
        }

        return new self($parts, $this->warnings);
    }

    /**
     * A text that reads back as this.
     */
    public function source(): string
    {
        $source = '';
        $literal = '';
        foreach ([...$this->parts, new Placeholder('')] as $part) {
            if (\is_string($part)) {
                $literal .= $part;

                continue;
            }
            // Backslashes before braces mean something, and a place brings two braces more.
            $source .= (string) preg_replace_callback(
                '/(\\\\*)(\{\{|\{?$)/D',
                static fn(array $m): string => match (true) {
                    '{{' === $m[2] => str_repeat($m[1], 2) . '\{{',
                    '' === $part->name => $m[0],
                    default => str_repeat($m[1], 2) . $m[2],
                },
                $literal,
            );
            $literal = '';
            $source .= '' === $part->name ? '' : '{{' . $part->name . '}}';
        }

        return $source;
    }

    private static function warning(string $text, int $open): string
    {
        $piece = mb_strimwidth((string) strtok(mb_strcut($text, $open, 200), "\n"), 0, 24, '…');

        return str_contains(substr($text, $open, 200), '}}')
            ? "\"{$piece}\" is no name: names are letters, digits and underscore. It is taken as it stands."
            : "\"{$piece}\" is not closed with }}. It is taken as it stands.";
    }
}
