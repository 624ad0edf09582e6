<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * What was changed in the setup of a project, the newest first.
 */
#[OA\Schema(description: 'What was changed in the setup of a project, the newest first.')]
final readonly class SetupLog
{
    /**
     * @param  list<SetupAct>  $items
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: SetupAct::class))] public array $items,
        #[OA\Property(description: 'Where the next window begins; null when there is none')] public ?string $next,
    ) {}
}
