<?php

declare(strict_types=1);

namespace LucidStep\Core\Casebook;

/**
 * What a version of a case keeps.
 */
final readonly class CaseText
{
    /** The texts of a case beside its steps. */
    public const FIELDS = ['title', 'objective', 'preconditions', 'postconditions'];

    /**
     * @param  list<Step>  $steps
     * @param  ?string  $table the id of the data table it is bound to
     * @param  list<array{sha256: string, name: string}>  $files attachments
     */
    public function __construct(
        public string $title,
        public string $objective = '',
        public string $preconditions = '',
        public string $postconditions = '',
        public array $steps = [],
        public ?string $table = null,
        public array $files = [],
    ) {}

    /**
     * @param  array<string, mixed>  $a
     */
    public static function fromArray(array $a): self
    {
        $text = static fn(string $key): string => \is_string($a[$key] ?? null) ? $a[$key] : '';
        $steps = [];
        foreach (\is_array($a['steps'] ?? null) ? $a['steps'] : [] as $step) {
            $steps[] = Step::fromArray(\is_array($step) ? $step : []);
        }

        return new self(
            $text('title'),
            $text('objective'),
            $text('preconditions'),
            $text('postconditions'),
            $steps,
            \is_string($a['table'] ?? null) ? $a['table'] : null,
            Step::fromArray(['files' => $a['files'] ?? []])->files,
        );
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        return [
            'title' => $this->title,
            'objective' => $this->objective,
            'preconditions' => $this->preconditions,
            'postconditions' => $this->postconditions,
            'steps' => array_map(static fn(Step $s): array => $s->toArray(), $this->steps),
            'table' => $this->table,
            'files' => $this->files,
        ];
    }

    public function equals(self $other): bool
    {
        return $this->toArray() === $other->toArray();
    }
}
