<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * A round of an attempt in which a step was judged, as far as it takes to lay it beside another.
 */
final readonly class WalkedRound
{
    /**
     * @param  string  $attempt its id
     * @param  int  $round    from 1
     * @param  int  $step     where the step stands in it
     * @param  int  $number   of the attempt
     * @param  ?int  $build   where its build stands in the order of the project's
     * @param  int  $finished when the attempt ended, in µs since 1970; of an open one: now
     * @param  list<array{string, string}>  $row names and values it was walked with, secret ones masked
     */
    public function __construct(
        public string $attempt,
        public int $round,
        public int $step,
        public int $number,
        public ?int $build,
        public int $finished,
        public ?string $configuration,
        public array $row,
    ) {}

    /**
     * By build order, then by when it ended, then by number.
     *
     * @return array{int, int, int}
     */
    public function order(): array
    {
        return [$this->build ?? -1, $this->finished, $this->number];
    }
}
