<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

/**
 * A cell of a file that a spreadsheet may open. One that it would run as a formula gets an apostrophe in front, which
 * is taken off when it comes back: for every text, `read(harmless($text)) === $text`.
 */
final class Cell
{
    public static function harmless(string $text): string
    {
        return 1 === preg_match("/^'*[=+\\-@\t\r]/", $text) ? "'{$text}" : $text;
    }

    public static function read(string $cell): string
    {
        return 1 === preg_match("/^'+[=+\\-@\t\r]/", $cell) ? substr($cell, 1) : $cell;
    }
}
