<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Areas\Cycles\Data\RefusedEntry;
use OpenApi\Attributes as OA;

/**
 * What became of verdicts given from the list.
 */
#[OA\Schema(description: 'What became of verdicts given from the list.')]
final readonly class ListVerdictResult
{
    /**
     * @param  list<string>  $done
     * @param  list<RefusedEntry>  $refused
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $done,
        #[OA\Property(items: new OA\Items(ref: RefusedEntry::class))] public array $refused,
        #[OA\Property(description: 'So many entries that need their pass are stopped.')] public int $stopped,
    ) {}
}
