<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

/**
 * A file of cases with faults in it. Nothing of it was taken.
 */
final class CasesUnreadable extends \DomainException
{
    /**
     * @param  non-empty-list<ReadError>  $errors in order of row
     */
    public function __construct(public readonly array $errors)
    {
        parent::__construct(\sprintf('The file has %d %s. Nothing was taken from it.', \count($errors), 1 === \count($errors) ? 'fault' : 'faults'));
    }
}
