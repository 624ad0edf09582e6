<?php

declare(strict_types=1);

namespace LucidStep\Demo;

/**
 * A CSV file of the demo, row by row.
 */
final class CsvFile
{
    /**
     * @return list<array<string, string>>
     */
    public static function rows(string $path): array
    {
        $file = new \SplFileObject($path);
        $file->setFlags(\SplFileObject::READ_CSV | \SplFileObject::SKIP_EMPTY | \SplFileObject::READ_AHEAD | \SplFileObject::DROP_NEW_LINE);
        $file->setCsvControl(',', '"', '');
        $rows = [];
        $header = null;
        foreach ($file as $cells) {
            $cells = array_map(strval(...), (array) $cells);
            if (null === $header) {
                $header = $cells;

                continue;
            }
            $rows[] = array_combine($header, $cells);
        }

        return $rows;
    }
}
