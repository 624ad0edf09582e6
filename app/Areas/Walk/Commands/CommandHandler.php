<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use Illuminate\Validation\ValidationException;
use LucidStep\Core\Verdict\CannotFinish;

/**
 * Applies the commands of one kind.
 *
 * @template C of AttemptCommand
 */
interface CommandHandler
{
    /**
     * Changes a locked attempt and writes the event. The attempt is saved afterwards.
     *
     * @param  C  $command
     *
     * @throws ValidationException when the rules refuse it, by field
     * @throws CannotFinish        when an attempt cannot end this way
     */
    public function apply(AttemptCommand $command, CommandContext $context): void;
}
