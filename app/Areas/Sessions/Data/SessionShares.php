<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use LucidStep\Core\Sessions\TimeShares;
use OpenApi\Attributes as OA;

/**
 * What the active time of a session went to, in ms; each of the two splits sums to it.
 */
#[OA\Schema(description: 'What the active time of a session went to, in ms; each of the two splits sums to it.')]
final readonly class SessionShares
{
    public function __construct(
        #[OA\Property] public int $charter,
        #[OA\Property] public int $opportunity,
        #[OA\Property] public int $testing,
        #[OA\Property] public int $investigating,
        #[OA\Property] public int $setting_up,
    ) {}

    public static function from(TimeShares $shares): self
    {
        return new self(
            $shares->focus['charter'],
            $shares->focus['opportunity'],
            $shares->work['testing'],
            $shares->work['investigating'],
            $shares->work['setting_up'],
        );
    }
}
