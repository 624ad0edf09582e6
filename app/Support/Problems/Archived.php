<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Problems;

/**
 * The project is archived: it is read and not written.
 */
final class Archived extends Conflict
{
    public static function project(string $name): self
    {
        return new self(
            'archived',
            "{$name} is archived: it can be read and not changed. An owner of the installation takes it up again. " .
                'What you recorded is kept on this device.',
        );
    }
}
