<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Exceptions;

use LucidStep\App\Support\Problems\Conflict;

/**
 * What is deleted is archived first.
 */
final class NotArchived extends Conflict
{
    public static function project(string $name): self
    {
        return new self('not-archived', "{$name} is running. Archive it first: then it can be deleted.");
    }
}
