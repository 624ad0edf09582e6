<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

use LucidStep\Core\Exchange\Delimited;
use LucidStep\Core\Exchange\ReadError;
use LucidStep\Core\Exchange\Unreadable;

/**
 * Named columns and rows of texts.
 */
final readonly class DataTable
{
    public const MOST_COLUMNS = 60;

    public const MOST_ROWS = 5000;

    public const LONGEST_CELL = 4000;

    /**
     * @param  list<Column>  $columns
     * @param  list<list<string>>  $rows a cell for each column
     */
    private function __construct(public array $columns, public array $rows) {}

    /**
     * @param  list<Column>  $columns
     * @param  list<list<string>>  $rows
     *
     * @throws Unreadable with every fault by row (from 1) and column
     */
    public static function of(array $columns, array $rows): self
    {
        $errors = self::faultsOfColumns($columns);
        if (\count($rows) > self::MOST_ROWS) {
            $errors[] = new ReadError(self::MOST_ROWS + 1, null, \sprintf('More than %d rows.', self::MOST_ROWS));
        }
        foreach ($rows as $i => $cells) {
            if (\count($cells) !== \count($columns)) {
                $errors[] = new ReadError(
                    $i + 1,
                    null,
                    \sprintf('%d %s, but there are %d columns.', \count($cells), 1 === \count($cells) ? 'cell' : 'cells', \count($columns)),
                );
            }
            foreach ($cells as $at => $cell) {
                if (mb_strlen($cell) > self::LONGEST_CELL) {
                    $errors[] = new ReadError(
                        $i + 1,
                        $columns[$at]->name ?? null,
                        \sprintf('Longer than %d characters.', self::LONGEST_CELL),
                    );
                }
            }
        }
        if ([] !== $errors) {
            throw new Unreadable($errors);
        }

        return new self($columns, $rows);
    }

    /**
     * Reads a pasted or uploaded table: the first row names the columns, the separator is found.
     *
     * @throws Unreadable
     */
    public static function fromText(string $text): self
    {
        $rows = iterator_to_array(Delimited::fromText($text)->rows(), false);
        $names = array_map(trim(...), array_shift($rows) ?? []);
        $wide = \count($names);
        $rows = array_values(
            array_filter($rows, static fn(array $cells): bool => [] !== array_filter($cells, static fn(string $c): bool => '' !== $c)),
        );
        // Rows from a spreadsheet end at their last filled cell.
        $rows = array_map(static fn(array $cells): array => \count($cells) < $wide ? array_pad($cells, $wide, '') : $cells, $rows);

        return self::of(array_map(static fn(string $name): Column => new Column($name), $names), $rows);
    }

    /**
     * @return list<string>
     */
    public function names(): array
    {
        return array_map(static fn(Column $c): string => $c->name, $this->columns);
    }

    /**
     * A row as values by name in lower case.
     *
     * @param  int  $row from 0
     *
     * @return array<string, string>
     */
    public function values(int $row): array
    {
        $values = [];
        foreach ($this->columns as $at => $column) {
            $values[mb_strtolower($column->name)] = $this->rows[$row][$at];
        }

        return $values;
    }

    /**
     * @return list<string> names of the secret columns in lower case
     */
    public function secrets(): array
    {
        return array_values(
            array_map(
                static fn(Column $c): string => mb_strtolower($c->name),
                array_filter($this->columns, static fn(Column $c): bool => $c->secret),
            ),
        );
    }

    /**
     * @param  list<Column>  $columns
     *
     * @return list<ReadError>
     */
    private static function faultsOfColumns(array $columns): array
    {
        $errors = [];
        if ([] === $columns) {
            $errors[] = new ReadError(1, null, 'A data table needs at least one column.');
        }
        if (\count($columns) > self::MOST_COLUMNS) {
            $errors[] = new ReadError(1, null, \sprintf('More than %d columns.', self::MOST_COLUMNS));
        }
        $seen = [];
        foreach ($columns as $at => $column) {
            if (!Names::isName($column->name)) {
                $errors[] = new ReadError(
                    1,
                    $column->name,
                    '' === $column->name
                        ? \sprintf('Column %d has no name.', $at + 1)
                        : \sprintf(
                            '"%s" is no name: names are letters, digits and underscore, at most %d.',
                            mb_strimwidth($column->name, 0, 40, '…'),
                            Names::LONGEST,
                        ),
                );
            } elseif (isset($seen[mb_strtolower($column->name)])) {
                $errors[] = new ReadError(1, $column->name, "The column \"{$column->name}\" stands there twice.");
            }
            $seen[mb_strtolower($column->name)] = true;
        }

        return $errors;
    }
}
