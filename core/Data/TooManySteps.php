<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

/**
 * With its routines written out a case would have more steps than anybody walks.
 */
final class TooManySteps extends \DomainException
{
    public static function over(int $most): self
    {
        return new self("With its routines written out this has more than {$most} steps.");
    }
}
