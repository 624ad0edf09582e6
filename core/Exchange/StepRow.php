<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

/**
 * A step as it was read from a file.
 */
final readonly class StepRow
{
    public function __construct(public string $action, public string $data, public string $expected)
    {
    }
}
