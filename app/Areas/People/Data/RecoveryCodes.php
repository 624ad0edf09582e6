<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * Codes for whoever has not their phone, told once.
 */
#[OA\Schema(description: 'Codes for whoever has not their phone, told once.')]
final readonly class RecoveryCodes
{
    /**
     * @param  list<string>  $codes each counts once
     */
    public function __construct(#[OA\Property(items: new OA\Items(type: 'string'))] public array $codes) {}
}
