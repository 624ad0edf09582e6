<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

/**
 * Rows of a delimited text (RFC 4180): its character set (UTF-8, UTF-16 with a mark, else Windows-1252) and its
 * separator (comma, semicolon, tab or bar) are found. It is read as a stream, however long it is.
 */
final class Delimited
{
    private const SEPARATORS = [',', ';', "\t", '|'];

    /**
     * @param  resource  $stream UTF-8
     */
    private function __construct(private $stream, public readonly string $charset, public readonly string $separator) {}

    /**
     * @throws Unreadable when it is no text, or a quoted cell is left open
     */
    public static function fromText(string $text): self
    {
        $stream = self::temporary();
        fwrite($stream, $text);

        return self::fromStream($stream);
    }

    /**
     * @param  ?string  $separator when it is known
     *
     * @throws Unreadable when it is no text, or a quoted cell is left open
     */
    public static function fromFile(string $path, ?string $separator = null): self
    {
        $found = self::fromStream(fopen($path, 'r') ?: throw new \RuntimeException("{$path} cannot be opened."));

        return null === $separator ? $found : new self($found->stream, $found->charset, $separator);
    }

    /**
     * The records in order; a record that is blank is left out.
     *
     * @return \Generator<int, list<string>> by number of the record, from 1
     */
    public function rows(): \Generator
    {
        rewind($this->stream);
        if ("\xEF\xBB\xBF" !== fread($this->stream, 3)) {
            rewind($this->stream);
        }
        for ($row = 1; false !== ($cells = fgetcsv($this->stream, null, $this->separator, '"', '')); $row++) {
            if ([null] === $cells) {
                continue;
            }
            yield $row => array_map(static fn(?string $c): string => str_replace(["\r\n", "\r"], "\n", (string) $c), $cells);
        }
    }

    /**
     * @param  resource  $stream
     */
    private static function fromStream($stream): self
    {
        rewind($stream);
        $mark = (string) fread($stream, 3);
        $charset = match (true) {
            str_starts_with($mark, "\xFF\xFE") => 'UTF-16LE',
            str_starts_with($mark, "\xFE\xFF") => 'UTF-16BE',
            default => self::isUtf8($stream) ? 'UTF-8' : 'Windows-1252',
        };
        if ('UTF-8' !== $charset) {
            $stream = self::converted($stream, $charset);
        }
        [$separator, $quotes, $lines] = self::survey($stream);
        if (1 === $quotes % 2) {
            throw Unreadable::because('A quoted cell is not closed before the end of the file.', $lines);
        }

        return new self($stream, $charset, $separator);
    }

    /**
     * @param  resource  $stream
     */
    private static function isUtf8($stream): bool
    {
        rewind($stream);
        while (false !== ($line = fgets($stream))) {
            if (str_contains($line, "\0")) {
                throw Unreadable::because('This is not text: it holds zero bytes.');
            }
            if (!mb_check_encoding($line, 'UTF-8')) {
                return false;
            }
        }

        return true;
    }

    /**
     * @param  resource  $stream
     *
     * @return resource
     */
    private static function converted($stream, string $charset)
    {
        rewind($stream);
        $out = self::temporary();
        $rest = '';
        if (str_starts_with($charset, 'UTF-16')) {
            fread($stream, 2);
        }
        while (!feof($stream)) {
            $piece = $rest . fread($stream, 65536);
            $cut = \strlen($piece);
            if ('Windows-1252' !== $charset && !feof($stream)) {
                $cut -= $cut % 2;
                // A piece does not end between the halves of one character.
                $high = \ord($piece['UTF-16LE' === $charset ? $cut - 1 : $cut - 2] ?? "\0");
                $cut -= $high >= 0xd8 && $high <= 0xdb ? 2 : 0;
            }
            $rest = substr($piece, $cut);
            fwrite($out, (string) mb_convert_encoding(substr($piece, 0, $cut), 'UTF-8', $charset));
        }

        return $out;
    }

    /**
     * @param  resource  $stream
     *
     * @return array{string, int, int} separator, number of quotes, number of lines
     */
    private static function survey($stream): array
    {
        rewind($stream);
        $quotes = $lines = 0;
        $counts = null;
        $header = '';
        while (false !== ($line = fgets($stream))) {
            $lines++;
            $quotes += substr_count($line, '"');
            if (null === $counts) {
                $header .= $line;
                if (0 === $quotes % 2 && '' !== trim($header)) {
                    $outside = (string) preg_replace('/"[^"]*"/', '', $header);
                    $counts = array_map(
                        static fn(string $s): int => substr_count($outside, $s),
                        array_combine(self::SEPARATORS, self::SEPARATORS),
                    );
                }
            }
        }
        $separator = ',';
        foreach ($counts ?? [] as $candidate => $count) {
            if ($count > ($counts[$separator] ?? 0)) {
                $separator = (string) $candidate;
            }
        }

        return [$separator, $quotes, $lines];
    }

    /**
     * @return resource
     */
    private static function temporary()
    {
        return fopen('php://temp/maxmemory:4194304', 'w+') ?: throw new \RuntimeException('No temporary stream.');
    }
}
