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
}
