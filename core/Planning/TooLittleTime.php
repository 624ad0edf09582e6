<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * What must be walked takes longer than there is time.
 */
final class TooLittleTime extends \DomainException
{
    private function __construct(string $message, public readonly int $needed)
    {
        parent::__construct($message);
    }

    /**
     * @param  int  $needed seconds
     * @param  int  $budget seconds
     */
    public static function forLocked(int $needed, int $budget): self
    {
        return new self(
            \sprintf('What must be in takes %d minutes, more than the %d there are.', (int) ceil($needed / 60), intdiv($budget, 60)),
            $needed,
        );
    }
}
