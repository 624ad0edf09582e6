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
    use DescribesWrite;
}
