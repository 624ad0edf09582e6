<?php

declare(strict_types=1);

namespace LucidStep\App\Support\OpenApi;

use OpenApi\Attributes as OA;

/**
 * Describes a writing operation of the API (post).
 */
#[\Attribute(\Attribute::TARGET_METHOD)]
final class Post extends OA\Post
{
    use DescribesWrite;
}
