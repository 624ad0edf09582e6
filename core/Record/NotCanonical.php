<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * A value that the record cannot hold.
 */
final class NotCanonical extends \InvalidArgumentException
{
    private function __construct(string $message, public readonly string $path)
    {
        parent::__construct($message);
    }

    public static function at(string $path, string $what): self
    {
        return new self("The record cannot hold {$what} at {$path}.", $path);
    }
}
