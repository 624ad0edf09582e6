<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exceptions;

use LucidStep\App\Models\JobState;
use LucidStep\App\Support\Problems\Conflict;

/**
 * What an import does not allow as it stands.
 */
final class ImportConflict extends Conflict
{
    public static function nothingToDo(): self
    {
        return new self('nothing-to-do', 'Nothing in this file would be created or changed.');
    }

    public static function fileIsGone(): self
    {
        return new self('file-gone', 'The file of this import is not kept any more. Choose it again.');
    }

    public static function isOver(): self
    {
        return new self('finished', 'This import is over. What it brought in can be undone.');
    }

    /**
     * @param  string  $what such as "run"
     */
    public static function wrongState(JobState $state, string $what): self
    {
        return new self('wrong-state', "This import is {$state->value}; it cannot be {$what} now.", ['state' => $state->value]);
    }
}
