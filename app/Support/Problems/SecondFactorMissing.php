<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Problems;

/**
 * The project lets nobody in who has no second factor.
 */
final class SecondFactorMissing extends Conflict
{
    public static function inProject(): self
    {
        return new self(
            'second-factor-missing',
            'This project asks for a second factor at sign-in. Set one up in Your account, and you are in again. ' .
                'What you recorded is kept on this device.',
            status: 403,
        );
    }
}
