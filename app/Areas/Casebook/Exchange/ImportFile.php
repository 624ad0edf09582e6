<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Contracts\Filesystem\Filesystem;
use LucidStep\App\Models\CaseImport;
use LucidStep\App\Support\Secrets\ProjectSecrets;
use LucidStep\Core\Data\Mask;
use LucidStep\Core\Exchange\Delimited;
use LucidStep\Core\Exchange\JsonCases;
use LucidStep\Core\Exchange\SheetReader;
use LucidStep\Core\Exchange\Unreadable;

/**
 * Opens the file of an import. A workbook is turned into rows once, and read like any other file from then on.
 */
final readonly class ImportFile
{
    /** A workbook of more than that, unpacked, takes longer than a job may. */
    public const MOST_SHEET_BYTES = 150 * 1024 * 1024;

    public const MOST_COLUMNS = 120;

    public const MOST_ROWS = 200_000;

    public function __construct(private Filesystem $files) {}

    /**
     * @throws Unreadable
     */
    public function rows(CaseImport $import): Delimited
    {
        $path = $this->files->path($import->path);
        if ('xlsx' === $import->format) {
            $rows = "{$path}.rows";
            if (!is_file($rows)) {
                $this->unpack($path, $rows, ProjectSecrets::mask($import->project_id));
            }

            return Delimited::fromFile($rows, ',');
        }

        return Delimited::fromFile($path);
    }

    /**
     * @throws Unreadable
     */
    public function json(CaseImport $import): JsonCases
    {
        return JsonCases::read((string) $this->files->get($import->path));
    }

    /**
     * Text files had secret values hidden as they came; what stands in a workbook is seen here first.
     */
    private function unpack(string $path, string $to, Mask $mask): void
    {
        $this->refuseBombs($path);
        $sheet = SheetReader::open($path);
        $wide = 1;
        foreach ($sheet->rows(self::MOST_COLUMNS, self::MOST_ROWS) as $cells) {
            $wide = max($wide, ...array_map(static fn(int $at): int => $at + 1, array_keys($cells)));
        }
        $out = fopen("{$to}.part", 'w') ?: throw new \RuntimeException("{$to} cannot be written.");
        $written = 0;
        foreach ($sheet->rows(self::MOST_COLUMNS, self::MOST_ROWS) as $number => $cells) {
            // Rows keep their numbers: faults are named by them.
            for (; $written < $number - 1 && [] !== $cells; $written++) {
                fputcsv($out, array_fill(0, $wide, ''), ',', '"', '');
            }
            if ([] !== $cells) {
                fputcsv($out, array_map($mask->text(...), array_replace(array_fill(0, $wide, ''), $cells)), ',', '"', '');
                $written++;
            }
        }
        fclose($out);
        rename("{$to}.part", $to);
    }

    /**
     * How many bytes a workbook has unpacked, by what it says of itself.
     *
     * @throws Unreadable when it is no workbook
     */
    public function unpackedBytes(CaseImport $import): int
    {
        return self::unpacked($this->files->path($import->path));
    }

    private static function unpacked(string $path): int
    {
        $zip = new \ZipArchive();
        if (true !== $zip->open($path, \ZipArchive::RDONLY)) {
            throw Unreadable::because('This is no XLSX workbook, or a damaged one.');
        }
        $all = 0;
        for ($i = 0; $i < $zip->numFiles; $i++) {
            $all += (int) ($zip->statIndex($i)['size'] ?? 0);
        }
        $zip->close();

        return $all;
    }

    private function refuseBombs(string $path): void
    {
        $all = self::unpacked($path);
        if ($all > self::MOST_SHEET_BYTES) {
            throw Unreadable::because(
                \sprintf(
                    'Unpacked, this workbook has %.0f MB; at most %.0f MB can be read. Save the sheet as CSV: of that, files ' .
                        'up to %.0f MB come in.',
                    $all / 1_048_576,
                    self::MOST_SHEET_BYTES / 1_048_576,
                    config('lucid.import.max_bytes') / 1_048_576,
                ),
            );
        }
    }
}
