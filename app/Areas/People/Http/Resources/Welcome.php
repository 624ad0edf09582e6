<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * What the sign-in page needs to know.
 */
#[OA\Schema(description: 'What the sign-in page needs to know.')]
final readonly class Welcome
{
    /**
     * @param  list<DemoSignIn>  $sign_ins
     */
    public function __construct(
        #[OA\Property] public bool $demo,
        #[OA\Property(items: new OA\Items(ref: DemoSignIn::class))] public array $sign_ins,
        #[OA\Property(description: 'Where the practice page of the demo is')] public ?string $practice_url,
        #[OA\Property(description: 'Whom a trusted proxy names, where nobody here has this mail address')] public ?string $came_as,
    ) {}
}
