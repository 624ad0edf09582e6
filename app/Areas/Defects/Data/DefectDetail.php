<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * A defect with everything about it.
 */
#[OA\Schema(description: 'A defect with everything about it.')]
final readonly class DefectDetail
{
    /**
     * @param  list<string>  $moves
     * @param  list<string>  $asks_word
     * @param  list<DefectOrigin>  $origins
     * @param  list<DefectChangeLine>  $history
     * @param  list<EvidenceItem>  $evidence
     * @param  list<DefectCommentLine>  $comments
     * @param  list<DefectFileLine>  $files
     * @param  list<DefectName>  $duplicates
     * @param  list<RelatedDefect>  $relations
     * @param  list<Person>  $watchers who are told of everything
     */
    public function __construct(
        #[OA\Property] public DefectLine $defect,
        #[OA\Property] public string $preconditions,
        #[OA\Property(description: 'Numbered, in Markdown')] public string $steps,
        #[OA\Property] public string $expected,
        #[OA\Property] public string $actual,
        #[OA\Property] public string $environment,
        #[OA\Property(description: 'What else there is to say, in Markdown')] public string $body,
        #[OA\Property] public int $version,
        #[OA\Property] public ?Named $fixed_build,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $moves,
        #[OA\Property(description: 'Those of the moves that ask for a word', items: new OA\Items(type: 'string'))] public array $asks_word,
        #[OA\Property(items: new OA\Items(ref: DefectOrigin::class))] public array $origins,
        #[OA\Property(description: 'The session in which it was seen; null: in none')] public ?SeenInSession $session,
        #[OA\Property(items: new OA\Items(ref: DefectChangeLine::class))] public array $history,
        #[OA\Property(items: new OA\Items(ref: EvidenceItem::class))] public array $evidence,
        #[OA\Property(description: 'Where an answer leads back to')] public ?string $asked_in,
        #[OA\Property] public ?DefectName $duplicate_of,
        #[OA\Property(items: new OA\Items(ref: DefectName::class))] public array $duplicates,
        #[OA\Property(items: new OA\Items(ref: DefectCommentLine::class))] public array $comments,
        #[
            OA\Property(description: 'Files that were added to it by hand', items: new OA\Items(ref: DefectFileLine::class)),
        ]
        public array $files,
        #[OA\Property(items: new OA\Items(ref: RelatedDefect::class))] public array $relations,
        #[
            OA\Property(description: 'Who are told of everything that becomes of it', items: new OA\Items(ref: Person::class)),
        ]
        public array $watchers,
        #[OA\Property(description: 'How it stands in the tracker outside; null: there is none')] public ?OutsideStand $outside,
        #[OA\Property(description: 'How far its fix is proven; null: none is named')] public ?FixProgress $progress,
        #[OA\Property] public string $markdown,
        #[OA\Property] public string $plain,
    ) {}
}
