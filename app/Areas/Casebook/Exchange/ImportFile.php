<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Contracts\Filesystem\Filesystem;
use LucidStep\App\Models\CaseImport;
use LucidStep\App\Support\Secrets\ProjectSecrets;
use LucidStep\Core\Data\Mask;
use LucidStep\Core\Exchange\Delimited;
use LucidStep\Core\Exchange\JsonCases;
use LucidStep\Core\Exchange\Unreadable;
use PhpOffice\PhpSpreadsheet\Cell\Cell;
use PhpOffice\PhpSpreadsheet\Reader\Xlsx;
use PhpOffice\PhpSpreadsheet\Shared\Date;

/**
 * Opens the file of an import. A workbook is turned into rows once, and read like any other file from then on.
 */
final readonly class ImportFile
{
    /** A sheet of more than that, unpacked, does not fit into the memory of a job (about 1 GB for 100 MB of XML). */
    public const MOST_SHEET_BYTES = 60 * 1024 * 1024;

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
        $within = new SheetBounds(self::MOST_COLUMNS, self::MOST_ROWS);
        try {
            $reader = new Xlsx();
            $reader->setReadDataOnly(false);
            $reader->setReadEmptyCells(false);
            $reader->setIncludeCharts(false);
            $names = $reader->listWorksheetNames($path);
            $reader->setLoadSheetsOnly($names[0] ?? '');
            $reader->setReadFilter($within);
            $sheet = $reader->load($path)->getSheet(0);
        } catch (\Throwable $e) {
            throw Unreadable::because('This workbook cannot be read. It may be damaged or protected; save it anew, or as CSV.');
        }
        if (null !== $within->beyond) {
            throw Unreadable::because(
                \sprintf(
                    'This sheet has something in cell %s; at most %d columns and %s rows are read. Delete what stands outside and ' .
                        'save it anew.',
                    $within->beyond,
                    self::MOST_COLUMNS,
                    number_format(self::MOST_ROWS),
                ),
            );
        }
        $wide = min(self::MOST_COLUMNS, \PhpOffice\PhpSpreadsheet\Cell\Coordinate::columnIndexFromString($sheet->getHighestDataColumn()));
        $out = fopen("{$to}.part", 'w') ?: throw new \RuntimeException("{$to} cannot be written.");
        foreach ($sheet->getRowIterator() as $row) {
            $cells = array_fill(0, $wide, '');
            foreach ($row->getCellIterator() as $cell) {
                $at = \PhpOffice\PhpSpreadsheet\Cell\Coordinate::columnIndexFromString($cell->getColumn()) - 1;
                if ($at < $wide) {
                    $cells[$at] = self::text($cell);
                }
            }
            fputcsv($out, array_map($mask->text(...), $cells), ',', '"', '');
        }
        fclose($out);
        rename("{$to}.part", $to);
    }

    /**
     * What a person sees in the cell; a formula counts as its last result, it is never run.
     */
    private static function text(Cell $cell): string
    {
        $value = $cell->isFormula() ? $cell->getOldCalculatedValue() : $cell->getValue();
        if (is_numeric($value) && Date::isDateTime($cell)) {
            return Date::excelToDateTimeObject((float) $value)->format('Y-m-d');
        }

        return match (true) {
            \is_bool($value) => $value ? 'yes' : 'no',
            $value instanceof \PhpOffice\PhpSpreadsheet\RichText\RichText => $value->getPlainText(),
            \is_scalar($value) => str_replace(["\r\n", "\r", '_x000D_'], ["\n", "\n", ''], (string) $value),
            default => '',
        };
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
