<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * A small set of configurations in which every possible pair of values meets.
 */
final readonly class Pairs
{
    /**
     * @param  list<array<string, string>>  $configurations value by axis, in the order of the axes
     * @param  list<ValuePair>  $impossible     pairs that no allowed combination contains, the forbidden ones among them
     */
    public function __construct(public array $configurations, public array $impossible) {}
}
