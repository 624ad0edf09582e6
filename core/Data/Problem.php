<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

/**
 * Something in a case that would go wrong in the walk, at the place where it is written.
 */
final readonly class Problem
{
    /**
     * @param  ?int  $step     from 1; null when it is about the whole case
     * @param  string  $field    `action`, `data`, `expected`, `routine`, `table` or `values.<name>`
     * @param  string  $severity `error` or `warning`
     * @param  ?string  $name     the name that is not known
     * @param  ?string  $nearest  the known name it may have meant
     */
    public function __construct(
        public ?int $step,
        public string $field,
        public string $severity,
        public string $message,
        public ?string $name = null,
        public ?string $nearest = null,
    ) {}
}
