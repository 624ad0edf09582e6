<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

/**
 * Reads the payload that was kept of a command.
 */
final readonly class Payload
{
    /**
     * @param  array<array-key, mixed>  $values
     */
    public function __construct(private array $values) {}

    public function has(string $name): bool
    {
        return \array_key_exists($name, $this->values);
    }

    /**
     * Without spaces at its ends; empty when there is none.
     */
    public function text(string $name): string
    {
        $value = $this->values[$name] ?? '';

        return \is_scalar($value) ? trim((string) $value) : '';
    }

    public function textOrNull(string $name): ?string
    {
        $text = $this->text($name);

        return '' === $text ? null : $text;
    }

    /**
     * Forms send numbers as text.
     */
    public function int(string $name): int
    {
        return $this->intOrNull($name) ?? 0;
    }

    public function intOrNull(string $name): ?int
    {
        $value = $this->values[$name] ?? null;

        return is_numeric($value) ? (int) $value : null;
    }

    public function bool(string $name): bool
    {
        return filter_var($this->values[$name] ?? false, \FILTER_VALIDATE_BOOL);
    }

    /**
     * @return ?array<string, mixed>
     */
    public function objectOrNull(string $name): ?array
    {
        $value = $this->values[$name] ?? null;

        return \is_array($value) ? array_filter($value, is_string(...), \ARRAY_FILTER_USE_KEY) : null;
    }
}
