<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Models\DefectComment;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Data\TakenOut;
use OpenApi\Attributes as OA;

/**
 * What somebody said of a defect.
 */
#[OA\Schema(description: 'What somebody said of a defect.')]
final readonly class DefectCommentLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public Person $author,
        #[OA\Property(description: 'Markdown; empty once it was taken out')] public string $text,
        #[OA\Property] public string $at,
        #[OA\Property] public ?string $edited_at,
        #[OA\Property(description: 'Until when its author may mend it')] public string $stands_at,
        #[OA\Property] public ?TakenOut $removed,
    ) {}

    /**
     * @param  DefectComment  $c with author and removedBy loaded
     * @param  int  $minutes that its author has to mend it
     */
    public static function of(DefectComment $c, int $minutes): self
    {
        return new self(
            $c->id,
            Person::from($c->author),
            null === $c->removed_at ? $c->text : '',
            $c->created_at->toIso8601ZuluString(),
            $c->edited_at?->toIso8601ZuluString(),
            $c->created_at->copy()->addMinutes($minutes)->toIso8601ZuluString(),
            null === $c->removed_at
                ? null
                : new TakenOut(Person::orNull($c->removedBy), $c->removed_at->toIso8601ZuluString(), $c->removed_reason),
        );
    }
}
