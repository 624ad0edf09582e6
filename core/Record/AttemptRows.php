<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * What people are shown of an attempt, as it lies in its tables beside the events.
 *
 * @phpstan-type Round array{skipped: ?string, repeats: ?int, roll_up: string, values: ?list<array{string, string}>,
 *                       steps: array<int, array<string, scalar|null>>}
 */
final readonly class AttemptRows
{
    /**
     * @param  array<string, scalar|null>  $attempt tester, build, configuration, state, verdict, note and the like
     * @param  array<int, Round>  $rounds by place; their values by column, secret ones masked
     * @param  array<string, array<string, scalar|null>>  $evidence by id
     * @param  list<array{values: list<array{string, string}>, repeats: ?int}>  $began  the rounds it began with, as the case that
     *     it walked has them; none in one of before they stood there
     */
    public function __construct(public array $attempt, public array $rounds, public array $evidence, public array $began = []) {}
}
