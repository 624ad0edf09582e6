<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use LucidStep\Core\Exchange\SheetWriter;

/**
 * Writes rows of cases as a workbook.
 */
final class Workbook
{
    /** Columns that hold sentences. */
    private const WIDE = ['title', 'action', 'expected', 'preconditions', 'objective'];

    /**
     * @param  iterable<list<string>>  $rows the first is the header
     */
    public function write(string $path, iterable $rows): void
    {
        (new SheetWriter('Cases', self::WIDE))->write($path, $rows);
    }
}
