<?php

declare(strict_types=1);

namespace League\Config\Exception;

/**
 * A path that names no option.
 */
final class UnknownOptionException extends \InvalidArgumentException implements ConfigurationExceptionInterface
{
    public function __construct(string $message, private readonly string $path, int $code = 0, ?\Throwable $previous = null)
    {
        parent::__construct($message, $code, $previous);
    }

    /**
     * The path asked for.
     */
    public function getPath(): string
    {
        return $this->path;
    }
}
