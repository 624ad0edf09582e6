<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Models\Attempt;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * An attempt in a list.
 */
#[OA\Schema(description: 'An attempt in a list.')]
final readonly class AttemptSummary
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public int $number,
        #[OA\Property] public Person $tester,
        #[OA\Property] public ?Named $build,
        #[OA\Property] public ?Named $configuration,
        #[OA\Property(enum: ['open', 'finished', 'abandoned'])] public string $state,
        #[OA\Property] public string $roll_up,
        #[OA\Property] public ?string $verdict,
        #[OA\Property] public bool $overruled,
        #[OA\Property] public string $note,
        #[OA\Property] public int $active_ms,
        #[OA\Property] public ?int $corrected_ms,
        #[OA\Property] public string $started_at,
        #[OA\Property] public ?string $finished_at,
        #[OA\Property(description: 'Where it was walked')] public ?Named $named_environment,
        #[OA\Property(description: 'More of where, in words')] public string $environment,
        #[OA\Property(description: 'A note on the whole attempt')] public string $remark,
        #[OA\Property(description: 'Judged from the list: nobody walked its steps')] public bool $from_list,
        #[OA\Property(description: 'Why it stands beside the attempt that was open')] public ?string $parallel_reason,
        #[OA\Property(description: 'What whoever took it over said')] public string $takeover_word,
    ) {}

    /**
     * @param  Attempt  $a with tester, build, configuration and namedEnvironment loaded
     */
    public static function from(Attempt $a): self
    {
        return new self(
            $a->id,
            $a->number,
            Person::from($a->tester),
            Named::orNull($a->build),
            Named::orNull($a->configuration),
            $a->state->value,
            $a->roll_up->value,
            $a->verdict?->value,
            $a->overruled,
            $a->note,
            $a->active_ms,
            $a->corrected_ms,
            $a->started_at->toIso8601ZuluString('millisecond'),
            $a->finished_at?->toIso8601ZuluString('millisecond'),
            Named::orNull($a->namedEnvironment),
            $a->environment,
            $a->remark,
            $a->from_list,
            $a->parallel_reason,
            $a->takeover_word,
        );
    }
}
