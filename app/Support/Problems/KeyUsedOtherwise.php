<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Problems;

/**
 * An idempotency key came with another request than before.
 */
final class KeyUsedOtherwise extends Conflict
{
    public static function refused(): self
    {
        return new self('key-used-otherwise', 'This Idempotency-Key was used for another request. Nothing was changed.');
    }
}
