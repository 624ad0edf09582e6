<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * An entry that could be walked in the time that is left.
 */
final readonly class Candidate
{
    private const WEIGHTS = [1 => 8, 2 => 5, 3 => 3];

    /**
     * @param  float  $base         what walking it is worth, above 0
     * @param  list<string>  $requirements it covers
     * @param  list<string>  $needs        entries it needs the pass of and that have not passed
     */
    public function __construct(public string $id, public int $seconds, public float $base, public array $requirements = [], public array $needs = [])
    {
    }

    /**
     * Priority weight × (1 + fails among the case's newest five finished attempts).
     *
     * @param  int  $rank  of the priority: 1 critical, 2 high, 3 medium, from 4 on low
     * @param  int  $fails 0 to 5
     */
    public static function base(int $rank, int $fails): float
    {
        return (self::WEIGHTS[$rank] ?? 1) * (1 + $fails);
    }
}
