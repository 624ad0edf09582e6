<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * What is proposed when time is short.
 */
final readonly class TimePlan
{
    /**
     * @param  list<string>  $order   the entries to walk, in order
     * @param  list<string>  $left    the candidates left out, in cycle order
     * @param  float  $worth   of what is in
     * @param  float  $all     worth of all candidates together
     * @param  int  $seconds what is in takes
     */
    public function __construct(public array $order, public array $left, public float $worth, public float $all, public int $seconds) {}

    /**
     * The share of the worth that is left out, 0 to 1.
     */
    public function risk(): float
    {
        return $this->all > 0 ? max(0.0, 1 - $this->worth / $this->all) : 0.0;
    }
}
