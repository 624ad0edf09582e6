<?php

declare(strict_types=1);

namespace LucidStep\App\Support\OpenApi;

use OpenApi\Attributes as OA;

/**
 * Describes a writing operation of the API (delete).
 */
#[\Attribute(\Attribute::TARGET_METHOD)]
final class Delete extends OA\Delete
{
    /**
     * @param  string  $path    below /api/v1
     * @param  class-string|null  $returns the resource of the answer
     * @param  class-string|null  $body    the request
     * @param  int  $status  of a success
     */
    public function __construct(
        string $path,
        string $summary,
        ?string $returns = null,
        ?string $body = null,
        int $status = 200,
        bool $file = false,
    ) {
        parent::__construct(
            path: $path,
            summary: $summary,
            operationId: Operation::id('delete', $path),
            parameters: Operation::parameters($path, [], true),
            requestBody: Operation::body($body, $file),
            responses: Operation::responses($returns, false, $status),
        );
    }
}
