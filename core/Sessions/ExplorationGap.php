<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * How urgent it is to explore an area that nobody explored on the newest build: what never was comes first, then what was longest ago; of
 * those alike the one with the most open defects, then the one of which most was not walked either.
 */
final readonly class ExplorationGap
{
    /**
     * @param  ?int  $buildsSince builds since the newest that was explored; null: none was
     * @param  int  $notWalked cases there that were not walked on the newest build
     */
    public function __construct(private ?int $buildsSince, private int $openDefects, private int $notWalked) {}

    /**
     * @return int less than 0 where this one comes before the other
     */
    public function compare(self $other): int
    {
        return $other->rank() <=> $this->rank();
    }

    /**
     * @return array{int, int, int}
     */
    private function rank(): array
    {
        return [$this->buildsSince ?? \PHP_INT_MAX, $this->openDefects, $this->notWalked];
    }
}
