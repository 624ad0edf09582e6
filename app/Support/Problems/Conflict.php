<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Problems;

/**
 * What a person asked for does not fit how things stand now. Answered as 409, or 412 for a lost race. Each kind has its own
 * class with a named constructor; the types are listed in docs/problems.md.
 */
abstract class Conflict extends \RuntimeException
{
    /**
     * @param  string  $problem a short name programs can rely on, such as `walked-by-another`
     * @param  string  $message what happened, what was kept and what to do
     * @param  array<string, mixed>  $facts   what the interface needs to offer a way on
     */
    final protected function __construct(
        public readonly string $problem,
        string $message,
        public readonly array $facts = [],
        public readonly int $status = 409,
    ) {
        parent::__construct($message);
    }
}
