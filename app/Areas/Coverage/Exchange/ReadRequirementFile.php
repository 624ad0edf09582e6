<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Exchange;

use LucidStep\Core\Coverage\RequirementWords;
use LucidStep\Core\Exchange\Cell;
use LucidStep\Core\Exchange\Delimited;
use LucidStep\Core\Exchange\ReqIfReader;
use LucidStep\Core\Exchange\RequirementRecord;
use LucidStep\Core\Exchange\RequirementSheet;
use LucidStep\Core\Exchange\SheetReader;
use LucidStep\Core\Exchange\Unreadable;

/**
 * Requirements out of a file or a pasted text, whatever format that is: found by its content, not by its name.
 */
final class ReadRequirementFile
{
    /** Sheets have as many columns at most. */
    private const MOST_COLUMNS = 100;

    /** An interchange file is held whole while it is read. */
    private const LONGEST_XML = 16 * 1024 * 1024;

    /**
     * @param  array<string, string>  $said what columns or attributes mean, by name
     *
     * @throws Unreadable
     * @return array{columns: list<string>, meanings: list<string>, records: list<RequirementRecord>} columns by name; none of an outline
     */
    public static function fromFile(string $path, array $said): array
    {
        $head = (string) file_get_contents($path, false, null, 0, 4096);
        $start = ltrim((string) preg_replace('/^\xEF\xBB\xBF/', '', $head));
        if (str_starts_with($head, "PK\x03\x04")) {
            return self::sheet(SheetReader::open($path)->rows(self::MOST_COLUMNS, RequirementSheet::MOST_ROWS + 1), $said);
        }
        if (str_starts_with($start, '<')) {
            if (filesize($path) > self::LONGEST_XML) {
                throw Unreadable::because('A ReqIF file of more than 16 MB is not read at once. Export a part of it.');
            }
            $xml = (string) file_get_contents($path);
            $columns = ReqIfReader::attributes($xml);

            return [
                'columns' => $columns,
                'meanings' => RequirementSheet::meanings($columns, $said),
                'records' => ReqIfReader::read($xml, $said),
            ];
        }
        if (str_starts_with($start, '{')) {
            return ['columns' => [], 'meanings' => [], 'records' => self::json((string) file_get_contents($path))];
        }

        return self::sheet(Delimited::fromFile($path)->rows(), $said, true);
    }

    /**
     * Rows of a sheet where the first line has a title among several columns, else an outline.
     *
     * @param  array<string, string>  $said
     *
     * @throws Unreadable
     * @return array{columns: list<string>, meanings: list<string>, records: list<RequirementRecord>}
     */
    public static function fromText(string $text, array $said): array
    {
        $first = trim(explode("\n", ltrim($text))[0]);
        $names = array_map(trim(...), explode("\t", $first));
        // An outline may have a tab behind the number of a line; whatever else stands side by side is a row with its columns.
        if (\count($names) > 1 && 1 !== preg_match('/^([\d.]+\)?|[-*•])$/u', $names[0])) {
            return self::sheet(Delimited::fromText($text)->rows(), $said);
        }

        return ['columns' => [], 'meanings' => [], 'records' => RequirementSheet::fromOutline($text)];
    }

    /**
     * @param  iterable<int, array<int, string>>  $rows
     * @param  array<string, string>  $said
     * @param  bool  $guarded whether cells may carry the apostrophe that keeps spreadsheets from running them
     *
     * @return array{columns: list<string>, meanings: list<string>, records: list<RequirementRecord>}
     */
    private static function sheet(iterable $rows, array $said, bool $guarded = false): array
    {
        $header = null;
        $all = [];
        foreach ($rows as $number => $cells) {
            $all[$number] = $guarded ? array_map(Cell::read(...), $cells) : $cells;
            $header ??= $all[$number];
        }
        $columns = array_values(array_map(trim(...), $header ?? []));
        if ([] === $all) {
            throw Unreadable::because('There is nothing in it.');
        }

        $meanings = RequirementSheet::meanings($columns, $said);
        // Which column is the title can still be said.
        $records = \in_array('title', $meanings, true) ? RequirementSheet::read($all, $said) : [];

        return ['columns' => $columns, 'meanings' => $meanings, 'records' => $records];
    }

    /**
     * @throws Unreadable
     * @return list<RequirementRecord>
     */
    private static function json(string $json): array
    {
        $all = json_decode($json, true, 64);
        if (!\is_array($all) || WriteRequirements::FORMAT !== ($all['format'] ?? null) || !\is_array($all['requirements'] ?? null)) {
            throw Unreadable::because('This is no JSON file of requirements. Those that are exported here begin with their format.');
        }
        $text = static fn(mixed $value): string => \is_string($value) ? trim($value) : '';
        $records = [];
        foreach (array_values($all['requirements']) as $i => $one) {
            $one = \is_array($one) ? $one : [];
            $identifier = $text($one['identifier'] ?? null);
            $details = array_filter(\is_array($one['details'] ?? null) ? $one['details'] : [], is_string(...));
            $records[] = new RequirementRecord(
                $i + 1,
                $text($one['key'] ?? null),
                new RequirementWords(
                    $text($one['title'] ?? null),
                    $text($one['text'] ?? null),
                    '' === $identifier ? null : $identifier,
                    $details,
                ),
                $text($one['parent'] ?? null),
            );
        }

        return $records;
    }
}
