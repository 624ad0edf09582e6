<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Resources;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * Who else has the case open to write.
 */
#[OA\Schema(description: 'Who else has the case open to write.')]
final readonly class Presence
{
    /**
     * @param  list<Person>  $others
     */
    public function __construct(#[OA\Property(items: new OA\Items(ref: Person::class))] public array $others) {}
}
