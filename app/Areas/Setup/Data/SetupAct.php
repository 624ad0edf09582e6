<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Data\TakenOut;
use OpenApi\Attributes as OA;

/**
 * What somebody changed in the setup of a project, in one act.
 */
#[OA\Schema(description: 'What somebody changed in the setup of a project, in one act.')]
final readonly class SetupAct
{
    /**
     * @param  list<string>  $lines
     */
    public function __construct(
        #[OA\Property] public int $id,
        #[OA\Property(format: 'date-time')] public string $at,
        #[OA\Property(description: 'null: the application itself')] public ?Person $by,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $lines,
        #[
            OA\Property(description: 'Whether it holds words that stand in the setup no more, and could be taken out'),
        ]
        public bool $has_words,
        #[OA\Property] public ?TakenOut $removed,
        #[OA\Property(description: 'Whether all it changed is still as it left it, and can be as it was')] public bool $may_undo,
    ) {}
}
