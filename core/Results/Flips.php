<?php

declare(strict_types=1);

namespace LucidStep\Core\Results;

use LucidStep\Core\Verdict\Verdict;

/**
 * How the results of a cell change between pass and fail (rules of the job, 12). Blocked and not applicable are passed over.
 */
final readonly class Flips
{
    /** As many of the newest passes and fails say whether a cell is unsteady. */
    public const RECENT = 10;

    /** From so many flips on it is. */
    public const MANY = 2;

    /** So many fails, one after the other, the newest among them, make one that always fails. */
    public const FAILS = 3;

    /** @var list<CellResult> passes and fails alone */
    private array $results;

    /**
     * @param  iterable<CellResult>  $results by the build's order, then by time, the oldest first
     */
    public function __construct(iterable $results)
    {
        $kept = [];
        foreach ($results as $result) {
            if (Verdict::Pass === $result->verdict || Verdict::Fail === $result->verdict) {
                $kept[] = $result;
            }
        }
        $this->results = $kept;
    }

    /**
     * How often it changed, whatever changed with it.
     */
    public function count(): int
    {
        return self::changes($this->results, false);
    }

    /**
     * Whether it changes without a reason that shows: on one build, with one version of the case. A regression and its fix is none.
     */
    public function isUnsteady(): bool
    {
        return self::changes(\array_slice($this->results, -self::RECENT), true) >= self::MANY;
    }

    public function alwaysFails(): bool
    {
        $newest = \array_slice($this->results, -self::FAILS);

        return self::FAILS === \count($newest) &&
            [] === array_filter($newest, static fn(CellResult $r): bool => Verdict::Fail !== $r->verdict);
    }

    /**
     * @param  list<CellResult>  $results
     */
    private static function changes(array $results, bool $inOnePlace): int
    {
        $changes = 0;
        foreach ($results as $i => $result) {
            $before = $results[$i - 1] ?? null;
            if (null !== $before && $before->verdict !== $result->verdict && (!$inOnePlace || $before->isSamePlace($result))) {
                $changes++;
            }
        }

        return $changes;
    }
}
