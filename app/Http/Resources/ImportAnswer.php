<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * The keys of the cases that came in.
 */
#[OA\Schema(description: 'The keys of the cases that came in.')]
final readonly class ImportAnswer
{
    /**
     * @param  list<string>  $keys
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $keys,
    ) {
    }
}
