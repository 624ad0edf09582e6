<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * A configuration, with its values and how many entries use it.
 */
#[OA\Schema(description: 'A configuration, with its values and how many entries use it.')]
final readonly class ConfigurationLine
{
    /**
     * @param  list<ConfigurationValue>  $values
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property] public int $entries,
        #[OA\Property(items: new OA\Items(ref: ConfigurationValue::class))] public array $values,
    ) {}
}
