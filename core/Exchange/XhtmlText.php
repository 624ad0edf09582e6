<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

/**
 * The part of XHTML that requirements are written in, as Markdown: paragraphs, headings, lists, emphasis, code, links and tables.
 * Anything else counts as the text in it; what runs or loads something is left out.
 */
final class XhtmlText
{
    private const DROPPED = ['script', 'style', 'object', 'iframe', 'embed', 'head'];

    private const BLOCKS = ['p', 'div', 'blockquote', 'pre', 'table', 'ul', 'ol', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6'];

    public static function markdown(\DOMElement $element): string
    {
        $text = self::blocks($element, '');

        return trim((string) preg_replace(["/[ \t]+\n/", "/\n{3,}/"], ["\n", "\n\n"], $text));
    }

    private static function blocks(\DOMNode $node, string $indent): string
    {
        $out = '';
        foreach ($node->childNodes as $child) {
            $name = $child instanceof \DOMElement ? strtolower((string) $child->localName) : '';
            $out .= match (true) {
                $child instanceof \DOMText => self::plain($child->data),
                !($child instanceof \DOMElement) || \in_array($name, self::DROPPED, true) => '',
                'br' === $name => "  \n{$indent}",
                'ul' === $name || 'ol' === $name => "\n" . self::items($child, 'ol' === $name, $indent) . "\n",
                'table' === $name => "\n\n" . self::table($child) . "\n\n",
                'pre' === $name => "\n\n```\n" . trim($child->textContent, "\n") . "\n```\n\n",
                1 === preg_match('/^h([1-6])$/', $name, $m) => "\n\n" .
                    str_repeat('#', (int) $m[1]) .
                    ' ' .
                    trim(self::inline($child)) .
                    "\n\n",
                \in_array($name, self::BLOCKS, true) => "\n\n{$indent}" . trim(self::blocks($child, $indent)) . "\n\n",
                default => self::inlineElement($child, $name, $indent),
            };
        }

        return $out;
    }

    private static function inline(\DOMElement $element): string
    {
        return self::blocks($element, '');
    }

    private static function inlineElement(\DOMElement $element, string $name, string $indent): string
    {
        $inner = self::blocks($element, $indent);
        $address = $element->getAttribute('href');

        return match (true) {
            '' === trim($inner) => $inner,
            'strong' === $name || 'b' === $name => self::around($inner, '**'),
            'em' === $name || 'i' === $name => self::around($inner, '*'),
            'code' === $name || 'tt' === $name => '`' . str_replace('`', '', trim($element->textContent)) . '`',
            'a' === $name && 1 === preg_match('#^(?:https?|mailto):#i', $address) => '[' . trim($inner) . "]({$address})",
            default => $inner,
        };
    }

    /**
     * Marks stand at words, not at blanks.
     */
    private static function around(string $inner, string $mark): string
    {
        preg_match('/^(\s*)(.*?)(\s*)$/su', $inner, $m);

        return ($m[1] ?? '') . $mark . ($m[2] ?? '') . $mark . ($m[3] ?? '');
    }

    private static function items(\DOMElement $list, bool $numbered, string $indent): string
    {
        $out = '';
        $n = 0;
        foreach ($list->childNodes as $item) {
            if ($item instanceof \DOMElement && 'li' === strtolower((string) $item->localName)) {
                $mark = $numbered ? ++$n . '. ' : '- ';
                $inner = trim(self::blocks($item, $indent . str_repeat(' ', \strlen($mark))));
                $out .= "{$indent}{$mark}{$inner}\n";
            }
        }

        return $out;
    }

    private static function table(\DOMElement $table): string
    {
        $rows = [];
        foreach ($table->getElementsByTagNameNS('*', 'tr') as $row) {
            $cells = [];
            foreach ($row->childNodes as $cell) {
                if ($cell instanceof \DOMElement && \in_array(strtolower((string) $cell->localName), ['td', 'th'], true)) {
                    $cells[] = str_replace(['|', "\n"], ['\\|', ' '], trim(self::blocks($cell, '')));
                }
            }
            $rows[] = '| ' . implode(' | ', $cells) . ' |';
            if (1 === \count($rows)) {
                $rows[] = '|' . str_repeat(' --- |', max(1, \count($cells)));
            }
        }

        return implode("\n", $rows);
    }

    /**
     * Signs that would mean something in Markdown are kept as they are.
     */
    private static function plain(string $text): string
    {
        $one = (string) preg_replace('/\s+/u', ' ', $text);

        return (string) preg_replace('/([\\\\`*_\[\]])/', '\\\\$1', $one);
    }
}
