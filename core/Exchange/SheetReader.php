<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

/**
 * Reads the first sheet of a workbook (Office Open XML, ECMA-376 part 1) row by row, so that its size hardly matters: of the file
 * only the shared texts are held.
 *
 * A cell is what a person sees of it: text, a number as it is kept, a day as YYYY-MM-DD, yes or no. A formula counts as its last
 * result and is never run.
 */
final readonly class SheetReader
{
    /** Days from 1899-12-30, the beginning of the serial numbers of days, to 1970-01-01. */
    private const EPOCH = 25_569;

    /** The same where days are counted from 1904. */
    private const EPOCH_1904 = 24_107;

    private const LINKS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
    private const LINKS_STRICT = 'http://purl.oclc.org/ooxml/officeDocument/relationships';

    /** Formats of days and times that need no definition (ECMA-376 part 1, 18.8.30). */
    private const DATES = [[14, 22], [27, 36], [45, 47], [50, 58]];

    /**
     * @param  list<string>  $texts the shared ones
     * @param  array<int, true>  $dates styles in which a number is a day
     */
    private function __construct(
        private string $path,
        private string $sheet,
        private array $texts,
        private array $dates,
        private int $epoch,
    ) {}

    /**
     * @throws Unreadable when it is no workbook
     */
    public static function open(string $path): self
    {
        $zip = new \ZipArchive();
        if (true !== $zip->open($path, \ZipArchive::RDONLY)) {
            throw self::damaged();
        }
        $book = (string) $zip->getFromName('xl/workbook.xml');
        $parts = self::parts((string) $zip->getFromName('xl/_rels/workbook.xml.rels'));
        $styles = isset($parts['styles']) ? (string) $zip->getFromName($parts['styles']) : '';
        $zip->close();
        [$sheet, $epoch] = self::firstSheet($book);

        return new self(
            $path,
            $parts[$sheet] ?? throw self::damaged(),
            isset($parts['sharedStrings']) ? self::texts($path, $parts['sharedStrings']) : [],
            self::dates($styles),
            $epoch,
        );
    }

    /**
     * @param  int  $columns a cell beyond is an error, as is
     * @param  int  $rows    a row beyond
     *
     * @throws Unreadable when the sheet is damaged, or has something outside
     * @return iterable<int, array<int, string>> rows by number, from 1; cells by place, from 0, those that are not empty
     */
    public function rows(int $columns, int $rows): iterable
    {
        $xml = self::xml($this->path, $this->sheet);
        $number = $at = 0;
        $cells = [];
        while (self::next($xml)) {
            if (\XMLReader::ELEMENT === $xml->nodeType && 'row' === $xml->localName) {
                $number = (int) ($xml->getAttribute('r') ?? $number + 1);
                $at = 0;
                $cells = [];
                if ($xml->isEmptyElement) {
                    continue;
                }
            } elseif (\XMLReader::ELEMENT === $xml->nodeType && 'c' === $xml->localName) {
                $at = self::column($xml->getAttribute('r')) ?? $at;
                $text = $this->cell($xml);
                if ('' !== $text) {
                    if ($at >= $columns || $number > $rows) {
                        throw Unreadable::because(
                            \sprintf(
                                'This sheet has something in cell %s; at most %d columns and %s rows are read. Delete what stands ' .
                                    'outside and save it anew.',
                                self::name($at) . $number,
                                $columns,
                                number_format($rows),
                            ),
                        );
                    }
                    $cells[$at] = $text;
                }
                $at++;
            } elseif (\XMLReader::END_ELEMENT === $xml->nodeType && 'row' === $xml->localName) {
                yield $number => $cells;
            }
        }
        $xml->close();
    }

    private function cell(\XMLReader $xml): string
    {
        $type = $xml->getAttribute('t') ?? 'n';
        $style = (int) ($xml->getAttribute('s') ?? 0);
        if ($xml->isEmptyElement) {
            return '';
        }
        $value = $text = '';
        $depth = $xml->depth;
        while (self::next($xml) && $xml->depth > $depth) {
            if (\XMLReader::ELEMENT === $xml->nodeType && 'v' === $xml->localName) {
                $value = $xml->readString();
            } elseif (\XMLReader::ELEMENT === $xml->nodeType && 'is' === $xml->localName) {
                $text = self::text($xml);
            }
        }

        return match ($type) {
            's' => $this->texts[(int) $value] ?? '',
            'inlineStr' => $text,
            'str' => self::plain($value),
            'b' => '1' === trim($value) ? 'yes' : ('' === trim($value) ? '' : 'no'),
            default => $this->number(trim($value), $style),
        };
    }

    private function number(string $value, int $style): string
    {
        if (!is_numeric($value)) {
            return self::plain($value);
        }
        if (isset($this->dates[$style])) {
            return gmdate('Y-m-d', (int) floor(((float) $value - $this->epoch) * 86_400 + 0.5));
        }

        return (string) ($value + 0);
    }

    /**
     * @throws Unreadable
     * @return list<string>
     */
    private static function texts(string $path, string $part): array
    {
        $xml = self::xml($path, $part);
        $texts = [];
        while (self::next($xml)) {
            if (\XMLReader::ELEMENT === $xml->nodeType && 'si' === $xml->localName) {
                $texts[] = self::text($xml);
            }
        }
        $xml->close();

        return $texts;
    }

    /**
     * What an element of text says, its runs one after another, without how it is pronounced.
     */
    private static function text(\XMLReader $xml): string
    {
        if ($xml->isEmptyElement) {
            return '';
        }
        $text = '';
        $depth = $xml->depth;
        $skip = null;
        while (self::next($xml) && $xml->depth > $depth) {
            if (null !== $skip) {
                $skip = \XMLReader::END_ELEMENT === $xml->nodeType && $xml->depth === $skip ? null : $skip;
            } elseif (\XMLReader::ELEMENT === $xml->nodeType && 'rPh' === $xml->localName) {
                $skip = $xml->depth;
            } elseif (\XMLReader::ELEMENT === $xml->nodeType && 't' === $xml->localName) {
                $text .= $xml->readString();
            }
        }

        return self::plain($text);
    }

    /**
     * Characters that XML cannot hold stand as _xHHHH_ (ECMA-376 part 1, 22.9.2.19).
     */
    private static function plain(string $text): string
    {
        if (str_contains($text, '_x')) {
            $text = (string) preg_replace_callback(
                '/_x([0-9A-Fa-f]{4})_/',
                static fn(array $m): string => mb_chr((int) hexdec($m[1]), 'UTF-8') ?: '',
                $text,
            );
        }

        return str_replace(["\r\n", "\r"], "\n", $text);
    }

    /**
     * @return array{string, int} the id of the first sheet's part, and the day that numbers of days count from, to 1970-01-01
     */
    private static function firstSheet(string $book): array
    {
        $xml = self::parse($book);
        $epoch = self::EPOCH;
        while (self::next($xml)) {
            if (\XMLReader::ELEMENT !== $xml->nodeType) {
                continue;
            }
            if ('workbookPr' === $xml->localName && \in_array($xml->getAttribute('date1904'), ['1', 'true'], true)) {
                $epoch = self::EPOCH_1904;
            } elseif ('sheet' === $xml->localName) {
                $id = $xml->getAttributeNs('id', self::LINKS) ?? $xml->getAttributeNs('id', self::LINKS_STRICT);

                return [$id ?? throw self::damaged(), $epoch];
            }
        }
        throw self::damaged();
    }

    /**
     * @return array<string, string> the parts of the workbook by their id, and by what they are, such as `styles`
     */
    private static function parts(string $relations): array
    {
        $xml = self::parse($relations);
        $parts = [];
        while (self::next($xml)) {
            if (\XMLReader::ELEMENT === $xml->nodeType && 'Relationship' === $xml->localName) {
                $target = (string) $xml->getAttribute('Target');
                $part = str_starts_with($target, '/') ? substr($target, 1) : "xl/{$target}";
                $parts[(string) $xml->getAttribute('Id')] = $part;
                $parts[basename((string) $xml->getAttribute('Type'))] ??= $part;
            }
        }

        return $parts;
    }

    /**
     * @return array<int, true>
     */
    private static function dates(string $styles): array
    {
        if ('' === $styles) {
            return [];
        }
        $xml = self::parse($styles);
        $own = $dates = [];
        $at = null;
        while (self::next($xml)) {
            if (\XMLReader::ELEMENT === $xml->nodeType && 'numFmt' === $xml->localName) {
                $own[(int) $xml->getAttribute('numFmtId')] = self::isDate((string) $xml->getAttribute('formatCode'));
            } elseif ('cellXfs' === $xml->localName) {
                $at = \XMLReader::ELEMENT === $xml->nodeType ? 0 : null;
            } elseif (null !== $at && \XMLReader::ELEMENT === $xml->nodeType && 'xf' === $xml->localName) {
                $format = (int) $xml->getAttribute('numFmtId');
                if ($own[$format] ?? self::isGivenDate($format)) {
                    $dates[$at] = true;
                }
                $at++;
            }
        }
        $xml->close();

        return $dates;
    }

    private static function isGivenDate(int $format): bool
    {
        foreach (self::DATES as [$from, $to]) {
            if ($format >= $from && $format <= $to) {
                return true;
            }
        }

        return false;
    }

    /**
     * Whether a format shows a day or a time: it has one of their letters outside of quotes, brackets and escapes.
     */
    private static function isDate(string $format): bool
    {
        $bare = (string) preg_replace('/"[^"]*"|\[[^\]]*\]|\\\\.|_.|\*./', '', $format);

        return 'general' !== strtolower($bare) && 1 === preg_match('/[dmyhs]/i', $bare);
    }

    /**
     * @return ?int the place of a cell by its name, such as 27 for AB12
     */
    private static function column(?string $name): ?int
    {
        if (null === $name || 1 !== preg_match('/^([A-Z]{1,3})\d+$/', $name, $m)) {
            return null;
        }
        $at = 0;
        foreach (str_split($m[1]) as $letter) {
            $at = $at * 26 + \ord($letter) - 64;
        }

        return $at - 1;
    }

    /**
     * @return string what the column at a place is called, such as AB for 27
     */
    public static function name(int $at): string
    {
        $name = '';
        for ($left = $at + 1; $left > 0; $left = intdiv($left - 1, 26)) {
            $name = \chr(65 + (($left - 1) % 26)) . $name;
        }

        return $name;
    }

    /**
     * @throws Unreadable when there is nothing
     */
    private static function parse(string $text): \XMLReader
    {
        $xml = new \XMLReader();
        if ('' === $text || !$xml->XML($text, null, \LIBXML_NONET | \LIBXML_NOERROR | \LIBXML_NOWARNING)) {
            throw self::damaged();
        }

        return $xml;
    }

    private static function xml(string $path, string $part): \XMLReader
    {
        $xml = new \XMLReader();
        // Nothing outside of the file is read: no entities, no network.
        if (!@$xml->open("zip://{$path}#{$part}", null, \LIBXML_NONET | \LIBXML_NOERROR | \LIBXML_NOWARNING)) {
            throw self::damaged();
        }

        return $xml;
    }

    /**
     * @throws Unreadable when it is no XML, or declares entities
     */
    private static function next(\XMLReader $xml): bool
    {
        libxml_clear_errors();
        $before = libxml_use_internal_errors(true);
        $more = $xml->read();
        $errors = libxml_get_errors();
        libxml_use_internal_errors($before);
        if ([] !== $errors || \XMLReader::DOC_TYPE === $xml->nodeType) {
            throw self::damaged();
        }

        return $more;
    }

    private static function damaged(): Unreadable
    {
        return Unreadable::because('This workbook cannot be read. It may be damaged or protected; save it anew, or as CSV.');
    }
}
