<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

/**
 * A file or a pasted text with faults in it. Nothing of it was taken.
 */
final class Unreadable extends \DomainException
{
    /**
     * @param  non-empty-list<ReadError>  $errors in order of row
     */
    public function __construct(public readonly array $errors)
    {
        parent::__construct($errors[0]->message . (\count($errors) > 1 ? \sprintf(' (and %d more)', \count($errors) - 1) : ''));
    }

    public static function because(string $message, int $row = 1): self
    {
        return new self([new ReadError($row, null, $message)]);
    }
}
