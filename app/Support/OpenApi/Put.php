<?php

declare(strict_types=1);

namespace LucidStep\App\Support\OpenApi;

use OpenApi\Attributes as OA;

/**
 * Describes a writing operation of the API (put).
 */
#[\Attribute(\Attribute::TARGET_METHOD)]
final class Put extends OA\Put
{
    use DescribesWrite;
}
