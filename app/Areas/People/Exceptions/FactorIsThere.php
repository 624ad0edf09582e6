<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Exceptions;

use LucidStep\App\Support\Problems\Conflict;

/**
 * A second factor is set up already, or is not begun.
 */
final class FactorIsThere extends Conflict
{
    public static function already(): self
    {
        return new self('second-factor', 'Your second factor is set up already, or was begun elsewhere. Load the page again and look.');
    }
}
