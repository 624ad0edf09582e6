<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use LucidStep\App\Areas\Casebook\Queries\CheckCase;
use LucidStep\App\Areas\Casebook\Queries\RoutineBook;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\DataRow;
use LucidStep\App\Models\Entry;
use LucidStep\Core\Data\ExpandedStep;

/**
 * What an attempt takes from its case when it starts: the steps with routines written out, and the rows of the data table.
 * Secret values are kept encrypted.
 */
final class CaseSnapshot
{
    /**
     * @return list<array<string, mixed>> the steps as the snapshot of an attempt keeps them
     */
    public static function steps(CaseVersion $version, string $project): array
    {
        $text = $version->text();
        $expanded = RoutineBook::with($project, CheckCase::uses($text->steps))->expand($text->steps);

        return array_map(
            static fn(int $i, ExpandedStep $s): array => [
                'position' => $i + 1,
                'action' => $s->step->action,
                'data' => $s->step->data,
                'expected' => $s->step->expected,
                'files' => $s->step->files,
                'routines' => $s->routines,
            ],
            array_keys($expanded),
            $expanded,
        );
    }

    /**
     * The rows that an entry is walked with, one for each round: those chosen for it, else the first of the table.
     *
     * @return non-empty-list<array<string, mixed>> values by column; a secret one as `{"secret": …}`
     */
    public static function rows(Entry $entry, CaseVersion $version): array
    {
        $table = $version->loadMissing('dataTable.rows')->dataTable;
        if (null === $table || $table->rows->isEmpty()) {
            return [[]];
        }
        $chosen = array_values(array_filter($entry->row_ids ?? []));
        $rows = [] === $chosen ? $table->rows->take(1) : $table->rows->whereIn('id', $chosen);
        $out = [];
        foreach ($rows as $row) {
            /** @var DataRow $row */
            $values = [];
            foreach ($table->columns as $i => $column) {
                $cell = $row->cells[$i] ?? '';
                $values[$column['name']] = $column['secret'] ? ['secret' => $cell] : $cell;
            }
            $out[] = $values;
        }

        return [] === $out ? [[]] : $out;
    }

    /**
     * @return list<string> the names of the table's columns in their order, which a stored row does not keep
     */
    public static function columns(CaseVersion $version): array
    {
        return array_column($version->loadMissing('dataTable')->dataTable->columns ?? [], 'name');
    }

    /**
     * Whether any value that the version is walked with is secret.
     */
    public static function hasSecrets(CaseVersion $version): bool
    {
        return [] !== array_filter($version->loadMissing('dataTable')->dataTable->columns ?? [], static fn(array $c): bool => $c['secret']);
    }
}
