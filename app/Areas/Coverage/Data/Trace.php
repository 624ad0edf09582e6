<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use OpenApi\Attributes as OA;

/**
 * All that a thing is tied to, from what must hold down to the picture that shows it.
 */
#[OA\Schema(description: 'All that a thing is tied to, from what must hold down to the picture that shows it.')]
final readonly class Trace
{
    /**
     * @param  list<TraceRow>  $rows
     * @param  list<TraceSession>  $sessions
     */
    public function __construct(
        #[OA\Property(enum: TraceKind::class)] public string $kind,
        #[OA\Property] public TraceLink $of,
        #[OA\Property(type: 'array', items: new OA\Items(ref: TraceRow::class))] public array $rows,
        #[OA\Property(type: 'array', items: new OA\Items(ref: TraceSession::class))] public array $sessions,
        #[OA\Property(description: 'Whether there are more rows than are told')] public bool $more,
        #[OA\Property(description: 'Whether defects and evidence are told')] public bool $whole,
    ) {}
}
