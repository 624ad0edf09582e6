<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\EntryChanges;

use Illuminate\Validation\ValidationException;

/**
 * One kind of change of entries of a cycle, with what it needs to know.
 */
interface EntryChange
{
    /**
     * Writes it for the entries of the context.
     *
     *
     * @throws ValidationException by field
     * @return string what was done, as the log says it
     */
    public function apply(EntryChangeContext $context): string;
}
