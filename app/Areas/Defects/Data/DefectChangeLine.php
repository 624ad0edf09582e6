<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Models\DefectChange;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * A change of a defect's state.
 */
#[OA\Schema(description: "A change of a defect's state.")]
final readonly class DefectChangeLine
{
    /**
     * @param  list<FieldChange>  $fields what else than the state is otherwise
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public Person $actor,
        #[OA\Property] public ?string $from,
        #[OA\Property] public string $to,
        #[OA\Property] public string $note,
        #[OA\Property] public string $at,
        #[OA\Property(items: new OA\Items(ref: FieldChange::class))] public array $fields,
        #[OA\Property(description: 'The walk whose result moved it')] public ?string $attempt_id,
        #[OA\Property(description: 'The entry of that walk')] public ?string $entry_id,
        #[OA\Property(description: 'It happened in the tracker outside')] public bool $outside,
    ) {}

    /**
     * @param  DefectChange  $c with its actor and attempt loaded
     * @param  array<string, string>  $people names by id
     */
    public static function of(DefectChange $c, array $people = []): self
    {
        return new self(
            $c->id,
            Person::from($c->actor),
            $c->from_state?->value,
            $c->to_state->value,
            $c->note,
            $c->created_at->toIso8601ZuluString(),
            array_map(
                static fn(string $field, array $change): FieldChange => new FieldChange(
                    $field,
                    $people[$change[0] ?? ''] ?? $change[0],
                    $people[$change[1] ?? ''] ?? $change[1],
                ),
                array_keys($c->fields ?? []),
                $c->fields ?? [],
            ),
            $c->attempt_id,
            $c->attempt?->entry_id,
            $c->outside,
        );
    }
}
