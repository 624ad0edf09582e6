<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use LucidStep\App\Areas\Setup\Data\HandsetAddressLine;
use OpenApi\Attributes as OA;

/**
 * What a session listens to.
 */
#[OA\Schema(description: 'What a session listens to.')]
final readonly class ObserverDetail
{
    /**
     * @param  list<HandsetAddressLine>  $addresses
     */
    public function __construct(
        #[OA\Property(description: 'With which a page reports into it; null: none does, or another runs the session')] public ?string $code,
        #[OA\Property(description: 'Whether a page may report into it')] public bool $is_paired,
        #[OA\Property(description: 'Of the script')] public string $script,
        #[
            OA\Property(description: 'From where it may be reported', items: new OA\Items(ref: HandsetAddressLine::class)),
        ]
        public array $addresses,
        #[OA\Property(description: 'What was reported of last; empty: nothing yet')] public string $page,
        #[OA\Property(description: 'When something came last')] public ?string $came_at,
        #[OA\Property(description: 'Acts that were too many, or were lost')] public int $left_out,
        #[OA\Property(description: 'An address that asks to be let in and is not listed; empty: none')] public string $refused,
        #[OA\Property(description: 'The number of its newest line')] public int $newest,
    ) {}
}
