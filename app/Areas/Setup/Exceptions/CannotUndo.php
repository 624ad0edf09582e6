<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Exceptions;

use LucidStep\App\Support\Problems\Conflict;

/**
 * An act of the setup cannot be undone from the log.
 */
final class CannotUndo extends Conflict
{
    public static function elsewhere(): self
    {
        return new self('undone-elsewhere', 'This is not taken back from here. Change it where it was done.');
    }

    public static function overtaken(): self
    {
        return new self('setup-changed', 'What this changed was changed again since. Undo that first, or change it by hand.');
    }

    /**
     * @param  string  $why what the setup says against it
     */
    public static function because(string $why): self
    {
        return new self('setup-changed', "It cannot be as it was: {$why}");
    }
}
