<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

/**
 * One thing in a file that cannot be read.
 */
final readonly class ReadError
{
    /**
     * @param  int  $row    the row of the file, from 1 (the header is row 1)
     * @param  ?string  $column the header of the column
     */
    public function __construct(public int $row, public ?string $column, public string $message) {}
}
