<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

/**
 * A piece of a text with its values filled in.
 */
final readonly class FilledPart
{
    /** What an empty value is shown as; copied it is nothing. */
    public const EMPTY = '(empty)';

    /**
     * @param  string  $text what it holds
     * @param  ?string  $name the column or parameter it came from, null for the text between
     */
    public function __construct(public string $text, public ?string $name = null, public bool $secret = false) {}

    public function shown(): string
    {
        return match (true) {
            null === $this->name => $this->text,
            '' === $this->text => self::EMPTY,
            $this->secret => Mask::DOTS,
            default => $this->text,
        };
    }

    /**
     * The same in Markdown: a value stands there as code, so that nothing in it is read as Markdown.
     */
    public function markdown(): string
    {
        $text = $this->shown();
        if (null === $this->name) {
            return $text;
        }
        $fence = '`';
        if (str_contains($text, '`')) {
            preg_match_all('/`+/', $text, $ticks);
            $fence = str_repeat('`', 1 + max(0, ...array_map(strlen(...), $ticks[0])));
        }
        $pad = str_starts_with($text, '`') || str_ends_with($text, '`') || '' === trim($text) ? ' ' : '';

        return $fence . $pad . str_replace(["\r\n", "\n"], ' ', $text) . $pad . $fence;
    }
}
