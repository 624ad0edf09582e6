<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Nobody among the people has any capacity.
 */
final class NobodyToAssign extends \DomainException
{
    public static function atAll(): self
    {
        return new self('None of these people has any time left: choose others, or change their capacity.');
    }
}
