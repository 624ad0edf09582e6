<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Conditions that would make an entry wait for itself.
 */
final class LoopRefused extends \DomainException
{
    /**
     * @param  list<string>  $loop the entries in order: each waits for the next, the last for the first
     */
    private function __construct(string $message, public readonly array $loop)
    {
        parent::__construct($message);
    }

    /**
     * The loop in words, such as "These entries would wait for each other: A → B → A".
     *
     * @param  array<array-key, string>  $names what people call each
     */
    public function named(array $names, string $what = 'entries'): string
    {
        return "These {$what} would wait for each other: " .
            implode(' → ', array_map(static fn(string $id): string => $names[$id] ?? $id, [...$this->loop, $this->loop[0]]));
    }

    /**
     * @param  list<string>  $loop
     */
    public static function along(array $loop): self
    {
        return new self('These entries would wait for each other: ' . implode(' → ', [...$loop, $loop[0]]), $loop);
    }
}
