<?php

declare(strict_types=1);

namespace LucidStep\Core\Text;

/**
 * Text of people as a part of a Markdown file.
 */
final class Markdown
{
    /**
     * The text with nothing in it that a reader of Markdown takes for HTML.
     */
    public static function withoutHtml(string $text): string
    {
        return (string) preg_replace('/<(?=[a-z\/!?])/i', '&lt;', $text);
    }
}
