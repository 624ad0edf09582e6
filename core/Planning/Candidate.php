<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * An entry that could be walked in the time that is left.
 */
final readonly class Candidate
{
    /**
     * @param  float  $base         what walking it is worth, above 0
     * @param  list<string>  $requirements it covers
     * @param  list<string>  $needs        entries it needs the pass of and that have not passed
     */
    public function __construct(
        public string $id,
        public int $seconds,
        public float $base,
        public array $requirements = [],
        public array $needs = [],
    ) {}

    /**
     * Priority weight × (1 + fails among the case's newest five finished attempts).
     *
     * @param  float  $weight of the priority: 8 critical, 5 high, 3 medium, 1 low, unless the project says otherwise
     * @param  int  $fails  0 to 5
     */
    public static function base(float $weight, int $fails): float
    {
        return $weight * (1 + $fails);
    }
}
