<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Exceptions;

use LucidStep\App\Support\Problems\Conflict;

/**
 * Somebody must stay, because nobody else could do what only they may.
 */
final class LastOne extends Conflict
{
    public static function admin(string $name): self
    {
        return new self('last-admin', "{$name} is the last admin of the project. Make somebody else admin first.");
    }

    public static function owner(string $name): self
    {
        return new self('last-owner', "{$name} is the last owner of this installation. Make somebody else owner first.");
    }
}
