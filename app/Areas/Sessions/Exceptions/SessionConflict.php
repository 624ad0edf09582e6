<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Exceptions;

use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Sessions\SessionState;

/**
 * What does not fit a session as it stands.
 */
final class SessionConflict extends Conflict
{
    public static function notYours(string $tester): self
    {
        return new self('session-of-another', "{$tester} runs this session. Start one of your own.", ['tester' => $tester]);
    }

    public static function signedOff(): self
    {
        return new self('signed-off', 'The session was read and signed off. Write what is missing into a new one.');
    }

    public static function over(SessionState $state): self
    {
        return new self('session-over', "The session is {$state->value}.", ['state' => $state->value]);
    }

    public static function stillOpen(): self
    {
        return new self('session-open', 'The session is not stopped yet.');
    }

    public static function ownWork(): self
    {
        return new self('own-session', 'Somebody else reads it and signs it off.');
    }

    public static function dropped(): self
    {
        return new self('charter-dropped', 'Nobody is to run this charter any more.');
    }

    public static function notTheSame(): self
    {
        return new self('other-session', 'Another session has this id.');
    }

    public static function reproChanged(int $version): self
    {
        return new self(
            'saved-meanwhile',
            'Somebody else wrote down what leads there meanwhile. What you have is kept: look at theirs, and save again what is to stand.',
            ['version' => $version],
            412,
        );
    }

    public static function noSteps(): self
    {
        return new self('no-steps', 'Nothing is left that leads there. Keep at least one step.');
    }

    public static function caseMade(string $key): self
    {
        return new self('case-made', "{$key} was made of this already.", ['key' => $key]);
    }

    public static function changedMeanwhile(int $version): self
    {
        return new self(
            'saved-meanwhile',
            'Somebody changed the charter meanwhile. What you typed is kept: look at theirs, and save again what is to stand.',
            ['version' => $version],
            412,
        );
    }
}
