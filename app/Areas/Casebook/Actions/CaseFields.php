<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use LucidStep\App\Models\TestCase;
use LucidStep\Core\Casebook\CaseState;

/**
 * What a case has beside its text.
 */
final readonly class CaseFields
{
    public const NAMES = [
        'folder_id',
        'type',
        'priority',
        'state',
        'automated',
        'is_template',
        'estimate_seconds',
        'owner_id',
        'labels',
        'custom',
        'requirements',
    ];

    /**
     * @param  list<string>  $labels
     * @param  array<string, string>  $custom       values by id of the field, no empty ones
     * @param  list<string>  $requirements ids
     */
    public function __construct(
        public ?string $folder_id = null,
        public string $type = '',
        public string $priority = '',
        public CaseState $state = CaseState::Draft,
        public bool $automated = false,
        public bool $is_template = false,
        public ?int $estimate_seconds = null,
        public ?string $owner_id = null,
        public array $labels = [],
        public array $custom = [],
        public array $requirements = [],
    ) {}

    /**
     * @param  TestCase  $case with its requirements loaded
     */
    public static function of(TestCase $case): self
    {
        $requirements = array_values($case->requirements->map(static fn($r): string => $r->id)->sort()->all());

        return new self(
            $case->folder_id,
            $case->type,
            $case->priority,
            $case->state,
            $case->automated,
            $case->is_template,
            $case->estimate_seconds,
            $case->owner_id,
            $case->labels,
            $case->custom,
            $requirements,
        );
    }

    /**
     * @param  array<string, mixed>  $changes by name of the field; a state also as it is stored
     */
    public function with(array $changes): self
    {
        if (\is_string($changes['state'] ?? null)) {
            $changes['state'] = CaseState::from($changes['state']);
        }

        return new self(...[...get_object_vars($this), ...array_intersect_key($changes, array_flip(self::NAMES))]);
    }

    /**
     * What differs in another, by name: before and after.
     *
     * @return array<string, array{mixed, mixed}>
     */
    public function changesTo(self $other): array
    {
        $changes = [];
        foreach (self::NAMES as $name) {
            if ($this->{$name} != $other->{$name} || ('labels' === $name && $this->labels !== $other->labels)) {
                $changes[$name] = [$this->{$name}, $other->{$name}];
            }
        }

        return $changes;
    }
}
