<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use LucidStep\App\Models\LateAct;
use OpenApi\Attributes as OA;

/**
 * Something that arrived too late and waits for a lead.
 */
#[OA\Schema(description: 'Something that arrived too late and waits for a lead.')]
final readonly class LateNote
{
    public function __construct(
        #[OA\Property]
        public string $id,
        #[OA\Property]
        public string $kind,
        #[OA\Property]
        public string $why,
        #[OA\Property]
        public string $received_at,
    ) {
    }

    public static function from(LateAct $act): self
    {
        return new self($act->id, $act->kind, $act->why, $act->received_at->toIso8601ZuluString());
    }
}
