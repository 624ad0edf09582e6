<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * What people are shown of an attempt, as it lies in its tables beside the events.
 *
 * @phpstan-type Round array{skipped: ?string, repeats: ?int, roll_up: string, steps: array<int, array<string, scalar|null>>}
 */
final readonly class AttemptRows
{
    /**
     * @param  array<string, scalar|null>  $attempt tester, build, configuration, state, verdict, note and the like
     * @param  array<int, Round>  $rounds by place
     * @param  array<string, array<string, scalar|null>>  $evidence by id
     */
    public function __construct(public array $attempt, public array $rounds, public array $evidence) {}
}
