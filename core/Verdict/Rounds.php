<?php

declare(strict_types=1);

namespace LucidStep\Core\Verdict;

/**
 * The rounds of an attempt: which of them count. Each row counts by its newest round, so that one walked again stands for
 * the one before, which stays readable; a round left out counts as not applicable.
 */
final class Rounds
{
    /**
     * The rounds that count, in order.
     *
     * @param  list<RoundFacts>  $rounds in any order
     *
     * @return list<RoundFacts>
     */
    public static function counted(array $rounds): array
    {
        usort($rounds, static fn(RoundFacts $a, RoundFacts $b): int => $a->position <=> $b->position);
        $repeated = array_flip(array_filter(array_map(static fn(RoundFacts $r): ?int => $r->repeats, $rounds), is_int(...)));

        return array_values(array_filter($rounds, static fn(RoundFacts $r): bool => !isset($repeated[$r->position])));
    }

    /**
     * The step verdicts of the rounds that count, as {@see Finish::decide()} takes them.
     *
     * @param  list<RoundFacts>  $rounds
     *
     * @return list<list<Verdict>>
     */
    public static function verdicts(array $rounds): array
    {
        return array_map(static fn(RoundFacts $r): array => $r->skipped ? [Verdict::NotApplicable] : $r->verdicts, self::counted($rounds));
    }

    /**
     * What the attempt comes to.
     *
     * @param  list<RoundFacts>  $rounds
     */
    public static function rollUp(array $rounds): Verdict
    {
        return Verdict::rollUp(array_map(static fn(RoundFacts $r): Verdict => $r->rollUp(), self::counted($rounds)));
    }
}
