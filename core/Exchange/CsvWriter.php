<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

/**
 * Writes rows as CSV (RFC 4180, UTF-8 with its mark, so that spreadsheets read it as such); no cell of it is run as a formula.
 */
final class CsvWriter
{
    /**
     * @param  resource  $out
     * @param  iterable<array<string>>  $rows the header first
     */
    public static function write($out, iterable $rows): void
    {
        fwrite($out, "\xEF\xBB\xBF");
        foreach ($rows as $row) {
            fputcsv($out, array_map(Cell::harmless(...), $row), ',', '"', '', "\r\n");
        }
    }

    /**
     * @param  iterable<array<string>>  $rows the header first
     *
     * @return string the whole file
     */
    public static function text(iterable $rows): string
    {
        $out = fopen('php://temp', 'w+') ?: throw new \RuntimeException('No temporary stream.');
        self::write($out, $rows);
        rewind($out);

        return (string) stream_get_contents($out);
    }
}
