<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use OpenApi\Attributes as OA;

/**
 * The tracker outside that a project files into, without its secrets.
 */
#[OA\Schema(description: 'The tracker outside that a project files into, without its secrets.')]
final readonly class TrackerSetup
{
    /**
     * @param  list<TrackerCallLine>  $calls
     */
    public function __construct(
        #[OA\Property(description: 'Whether there is one')] public bool $is_set,
        #[OA\Property] public bool $enabled,
        #[OA\Property] public bool $sends_each,
        #[OA\Property] public string $address,
        #[OA\Property(description: 'Whether a token is kept; it is never shown')] public bool $has_token,
        #[OA\Property(description: 'Where the tracker may tell of changes')] public string $webhook,
        #[OA\Property] public TrackerFields $mapping,
        #[OA\Property(description: 'What is wrong with the connection; empty: nothing')] public string $problem,
        #[OA\Property(description: 'After failures in a row: until when it rests')] public ?string $resting_until,
        #[OA\Property(description: 'When its changes were asked for last')] public ?string $polled_at,
        #[OA\Property] public int $waiting,
        #[OA\Property] public int $refused,
        #[
            OA\Property(description: 'The first of what waits or was refused', items: new OA\Items(ref: TrackerCallLine::class)),
        ]
        public array $calls,
        #[OA\Property(description: 'The address of the tracker that ships with the demo; empty: none')] public string $shipped,
    ) {}
}
