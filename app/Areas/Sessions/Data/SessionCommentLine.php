<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use LucidStep\App\Models\SessionComment;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Data\TakenOut;
use OpenApi\Attributes as OA;

/**
 * What somebody who read a session said of it.
 */
#[OA\Schema(description: 'What somebody who read a session said of it.')]
final readonly class SessionCommentLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public Person $author,
        #[OA\Property(description: 'In Markdown')] public string $text,
        #[OA\Property(description: 'Who is asked to read the session')] public ?Person $to,
        #[OA\Property] public string $created_at,
        #[OA\Property] public ?TakenOut $removed,
    ) {}

    /**
     * @param  SessionComment  $c with author, to and remover loaded
     */
    public static function from(SessionComment $c): self
    {
        $at = $c->removed_at?->toIso8601ZuluString('millisecond');

        return new self(
            $c->id,
            Person::from($c->author),
            $c->text,
            Person::orNull($c->to),
            $c->created_at->toIso8601ZuluString('millisecond'),
            null === $at ? null : new TakenOut(Person::orNull($c->remover), $at, $c->removed_reason),
        );
    }
}
