<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exceptions;

use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Casebook\CaseState;

/**
 * What a case does not allow as it stands.
 */
final class CaseConflict extends Conflict
{
    public static function wrongState(CaseState $state): self
    {
        return new self('wrong-state', "The case is {$state->words()}, so this cannot be done now.", ['state' => $state->value]);
    }

    public static function isBinned(): self
    {
        return new self('binned', 'This case is in the bin. Restore it first; what you typed is kept on this device.');
    }

    public static function stepIsGone(int $step): self
    {
        return new self('step-gone', "The case has no step {$step} any more. Change the case by hand, and say so in the answer.");
    }

    public static function stepIsARoutine(int $step): self
    {
        return new self('step-gone', "A routine stands at step {$step} now. Change the routine by hand, and say so in the answer.");
    }
}
