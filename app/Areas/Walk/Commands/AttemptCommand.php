<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;

/**
 * What a person asks to record in an attempt. It is applied by its handler, whether it arrives in time, late, or is
 * accepted by a lead; until then its payload waits.
 */
interface AttemptCommand
{
    /**
     * The name under which a late one waits.
     */
    public function kind(): string;

    /**
     * @return array<string, scalar|array<array-key, mixed>|null> what {@see CommandRegistry::restore()} makes the same command of
     */
    public function payload(): array;

    /**
     * The same with the values of a mask hidden in everything a person wrote.
     */
    public function masked(Mask $mask): self;

    /**
     * What it would do, so that a lead can judge it without opening anything.
     */
    public function description(): string;
}
