<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use PhpOffice\PhpSpreadsheet\Cell\Coordinate;
use PhpOffice\PhpSpreadsheet\Reader\IReadFilter;

/**
 * Leaves cells far outside unread: a single one in the last corner of a sheet makes everything before it part of the sheet.
 */
final class SheetBounds implements IReadFilter
{
    /** The first cell outside, such as `XFD1`; null when there was none. */
    public ?string $beyond = null;

    public function __construct(private readonly int $columns, private readonly int $rows) {}

    public function readCell(string $columnAddress, int $row, string $worksheetName = ''): bool
    {
        $within = $row <= $this->rows && Coordinate::columnIndexFromString($columnAddress) <= $this->columns;
        if (!$within) {
            $this->beyond ??= "{$columnAddress}{$row}";
        }

        return $within;
    }
}
