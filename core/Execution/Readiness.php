<?php

declare(strict_types=1);

namespace LucidStep\Core\Execution;

/**
 * Whether an entry is ready, held or done, with every reason.
 */
final readonly class Readiness
{
    /**
     * @param  string  $is       `ready`, `held` or `done`
     * @param  list<HeldReason>  $reasons  why it is held
     * @param  list<HeldReason>  $warnings conditions that only warn: walking it asks for a word of why
     */
    public function __construct(public string $is, public array $reasons = [], public array $warnings = []) {}

    public function isReady(): bool
    {
        return 'ready' === $this->is;
    }
}
