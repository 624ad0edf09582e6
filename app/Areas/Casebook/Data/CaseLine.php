<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use LucidStep\App\Models\TestCase;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;
use OpenApi\Attributes as OA;

/**
 * A case in a list.
 */
#[OA\Schema(description: 'A case in a list.')]
final readonly class CaseLine
{
    /**
     * @param  list<string>  $labels
     * @param  object  $custom values by id of the field
     * @param  list<string>  $errors
     * @param  list<TextPart>  $title_parts of a search
     * @param  list<TextPart>  $words       of a search, around what was found in the text
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public ?string $folder_id,
        #[OA\Property(enum: ['draft', 'in_review', 'approved', 'retired'])] public string $state,
        #[OA\Property] public string $type,
        #[OA\Property] public string $priority,
        #[OA\Property] public ?int $estimate_seconds,
        #[OA\Property] public ?Person $owner,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $labels,
        #[OA\Property] public string $updated_at,
        #[OA\Property] public bool $automated,
        #[OA\Property] public bool $is_template,
        #[OA\Property] public ?string $table_id,
        #[OA\Property] public int $steps,
        #[OA\Property(type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string'))] public object $custom,
        #[OA\Property] public ?string $last_walked_at,
        #[OA\Property] public int $revision,
        #[OA\Property] public ?string $binned_at,
        #[
            OA\Property(
                description: 'In a list: why it cannot be walked, a sentence for each error in its text.',
                items: new OA\Items(type: 'string'),
            ),
        ]
        public array $errors,
        #[OA\Property(items: new OA\Items(ref: TextPart::class))] public array $title_parts,
        #[OA\Property(items: new OA\Items(ref: TextPart::class))] public array $words,
    ) {}

    /**
     * @param  TestCase  $c with its owner loaded
     * @param  list<TextPart>  $title what was searched for in the title
     * @param  list<TextPart>  $words and in the text
     */
    public static function from(TestCase $c, array $title = [], array $words = []): self
    {
        return new self(
            $c->id,
            $c->key,
            $c->title,
            $c->folder_id,
            $c->state->value,
            $c->type,
            $c->priority,
            $c->estimate_seconds,
            Person::orNull($c->owner),
            $c->labels,
            $c->updated_at->toIso8601ZuluString(),
            $c->automated,
            $c->is_template,
            $c->table_id,
            $c->steps_count,
            (object) $c->custom,
            $c->last_walked_at?->toIso8601ZuluString(),
            $c->revision,
            $c->binned_at?->toIso8601ZuluString(),
            [],
            $title,
            $words,
        );
    }

    /**
     * @param  \stdClass  $row   of a list of cases
     * @param  list<string>  $errors in its text
     * @param  list<TextPart>  $title what was searched for in the title
     * @param  list<TextPart>  $words and in the text
     */
    public static function fromRow(\stdClass $row, array $errors, array $title = [], array $words = []): self
    {
        return new self(
            $row->id,
            $row->key,
            $row->title,
            $row->folder_id,
            $row->state,
            $row->type,
            $row->priority,
            $row->estimate_seconds,
            null === $row->owner_id ? null : new Person($row->owner_id, $row->owner_name),
            json_decode($row->labels, true),
            (string) UtcTime::time($row->updated_at),
            $row->automated,
            $row->is_template,
            $row->table_id,
            $row->steps_count,
            (object) json_decode($row->custom, true),
            UtcTime::time($row->last_walked_at),
            $row->revision,
            UtcTime::time($row->binned_at),
            $errors,
            $title,
            $words,
        );
    }
}
