<?php

declare(strict_types=1);

namespace LucidStep\App\Support\OpenApi;

use OpenApi\Attributes as OA;

/**
 * Describes a reading operation of the API.
 */
#[\Attribute(\Attribute::TARGET_METHOD)]
final class Get extends OA\Get
{
    /**
     * @param  string  $path    below /api/v1
     * @param  class-string|null  $returns the resource of the answer
     * @param  bool  $list    whether the answer is a list of it
     * @param  array<string, string>  $query   query parameters and what they are for
     */
    public function __construct(string $path, string $summary, ?string $returns = null, bool $list = false, array $query = [])
    {
        parent::__construct(
            path: $path,
            summary: $summary,
            operationId: Operation::id('get', $path),
            parameters: Operation::parameters($path, $query, false),
            responses: Operation::responses($returns, $list, 200),
        );
    }
}
