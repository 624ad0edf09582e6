<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\CaseImport;
use LucidStep\Core\Exchange\CaseColumns;
use LucidStep\Core\Exchange\CaseReader;
use LucidStep\Core\Exchange\ImportContext;
use LucidStep\Core\Exchange\Unreadable;

/**
 * Reads the header of a file, some values, and how the columns seem to be meant, unless the person has said so.
 */
final readonly class ImportSurvey
{
    private const SAMPLES = 4;

    /** So many rows say what the columns are. */
    private const LOOKED_AT = 500;

    public function __construct(private ImportFile $file) {}

    /**
     * @throws Unreadable when it has too many columns, or none that names a case
     * @return array{charset: string, separator: string}
     */
    public function __invoke(CaseImport $import, ImportContext $around): array
    {
        $file = $this->file->rows($import);
        $header = $first = [];
        foreach ($file->rows() as $number => $cells) {
            if ([] === $header) {
                $header = $cells;
                if (\count($header) > ImportFile::MOST_COLUMNS) {
                    throw Unreadable::because(
                        \sprintf('The file has %d columns; at most %d are read.', \count($header), ImportFile::MOST_COLUMNS),
                    );
                }

                continue;
            }
            $first[$number] = $cells;
            if (\count($first) >= self::LOOKED_AT) {
                break;
            }
        }
        $values = array_map(static fn(int $at): array => self::column($first, $at), array_keys($header));
        if ($import->header !== $header) {
            $known = DB::table('import_mappings')
                ->where('project_id', $import->project_id)
                ->where('fingerprint', CaseColumns::fingerprint($header))
                ->first();
            $mapping = null === $known ? null : json_decode($known->mapping, true);
            if (!\is_array($mapping) || \count($mapping) !== \count($header)) {
                $mapping = CaseColumns::guess($header, $values, $around);
            }
            $import->fill([
                'header' => array_map(static fn(string $h): string => mb_strimwidth($h, 0, 120, '…'), $header),
                'mapping' => $mapping,
                'layout' => $known->layout ?? CaseReader::layoutOf($first, array_values($mapping)),
            ]);
        }
        $cut = static fn(string $v): string => mb_strimwidth($v, 0, 80, '…');
        $import
            ->fill([
                'samples' => array_map(static fn(array $some): array => array_map($cut, \array_slice($some, 0, self::SAMPLES)), $values),
            ])
            ->save();
        if (!\in_array('title', $import->mapping, true) && !\in_array('key', $import->mapping, true)) {
            throw Unreadable::because('No column seems to be the title. Say below which one is.');
        }

        return ['charset' => $file->charset, 'separator' => $file->separator];
    }

    /**
     * @param  array<int, list<string>>  $rows
     *
     * @return list<string> what is not empty
     */
    private static function column(array $rows, int $at): array
    {
        return array_values(
            array_filter(array_map(static fn(array $c): string => trim($c[$at] ?? ''), $rows), static fn(string $v): bool => '' !== $v),
        );
    }
}
