<?php

declare(strict_types=1);

namespace LucidStep\App\Support\OpenApi;

use OpenApi\Attributes as OA;

/**
 * Describes a writing operation of the API (patch).
 */
#[\Attribute(\Attribute::TARGET_METHOD)]
final class Patch extends OA\Patch
{
    use DescribesWrite;
}
