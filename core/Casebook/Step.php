<?php

declare(strict_types=1);

namespace LucidStep\Core\Casebook;

/**
 * A step as its author wrote it: three texts, or the use of a routine.
 */
final readonly class Step
{
    /**
     * @param  list<array{sha256: string, name: string}>  $files   reference pictures
     * @param  ?string  $routine the id of the routine that stands here
     * @param  array<string, string>  $values  the routine's parameters by name in lower case
     */
    public function __construct(
        public string $action = '',
        public string $data = '',
        public string $expected = '',
        public array $files = [],
        public ?string $routine = null,
        public array $values = [],
    ) {}

    /**
     * @param  array<array-key, mixed>  $a
     */
    public static function fromArray(array $a): self
    {
        $text = static fn(string $key): string => \is_string($a[$key] ?? null) ? $a[$key] : '';
        $files = [];
        foreach (\is_array($a['files'] ?? null) ? $a['files'] : [] as $file) {
            if (\is_array($file) && \is_string($file['sha256'] ?? null)) {
                $files[] = ['sha256' => $file['sha256'], 'name' => \is_string($file['name'] ?? null) ? $file['name'] : ''];
            }
        }
        $values = [];
        foreach (\is_array($a['values'] ?? null) ? $a['values'] : [] as $name => $value) {
            $values[mb_strtolower((string) $name)] = \is_scalar($value) ? (string) $value : '';
        }
        ksort($values);

        return new self(
            $text('action'),
            $text('data'),
            $text('expected'),
            $files,
            \is_string($a['routine'] ?? null) ? $a['routine'] : null,
            $values,
        );
    }

    /**
     * @return array{action: string, data: string, expected: string, files: list<array{sha256: string, name: string}>,
     *     routine: ?string, values: array<string, string>}
     */
    public function toArray(): array
    {
        return [
            'action' => $this->action,
            'data' => $this->data,
            'expected' => $this->expected,
            'files' => $this->files,
            'routine' => $this->routine,
            'values' => $this->values,
        ];
    }

    public function isEmpty(): bool
    {
        return null === $this->routine && [] === $this->files && '' === trim($this->action . $this->data . $this->expected);
    }

    public function equals(self $other): bool
    {
        return $this->toArray() === $other->toArray();
    }

    /**
     * @param  list<array{sha256: string, name: string}>  $files
     */
    public function withFiles(array $files): self
    {
        return new self($this->action, $this->data, $this->expected, $files, $this->routine, $this->values);
    }

    public function with(string $action, string $data, string $expected): self
    {
        return new self($action, $data, $expected, $this->files, $this->routine, $this->values);
    }
}
