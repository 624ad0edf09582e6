<?php

declare(strict_types=1);

namespace LucidStep\Core\Execution;

use LucidStep\Core\Casebook\Comparison;
use LucidStep\Core\Casebook\Step;

/**
 * Which step of which round of an earlier attempt stands here again. The case may have been changed between the two, and
 * its rows with it.
 */
final class StepMatching
{
    /**
     * @param  list<Step>  $then as the earlier attempt walked them
     * @param  list<Step>  $now
     *
     * @return array<int, array{was: int, same: bool}> by the step now, from 1; the steps that are new are not among them
     */
    public static function steps(array $then, array $now): array
    {
        $pairs = [];
        if (
            \count($then) === \count($now) &&
            [] === array_filter($now, static fn(Step $s, int $i): bool => !$s->equals($then[$i]), \ARRAY_FILTER_USE_BOTH)
        ) {
            // Nothing was changed, as nearly always.
            foreach (array_keys($now) as $i) {
                $pairs[$i + 1] = ['was' => $i + 1, 'same' => true];
            }

            return $pairs;
        }
        foreach (Comparison::steps($then, $now) as $pair) {
            if (null !== $pair->from && null !== $pair->to) {
                $pairs[$pair->to + 1] = ['was' => $pair->from + 1, 'same' => 'changed' !== $pair->is];
            }
        }
        ksort($pairs);

        return $pairs;
    }

    /**
     * A round is the same where its row has the same values, the newest where several have; the only round of both is the
     * same whatever its values are.
     *
     * @param  array<int, array<string, string>>  $then the values of a row by column, by the position of its round; only rounds that count
     * @param  array<int, array<string, string>>  $now
     *
     * @return array<int, array{was: int, same: bool}> by the position now; `same`: with the same values
     */
    public static function rounds(array $then, array $now): array
    {
        ksort($then);
        $key = static function (array $row): string {
            ksort($row);

            return serialize($row);
        };
        $at = [];
        foreach ($then as $position => $row) {
            $at[$key($row)] = $position;
        }
        $found = [];
        foreach ($now as $position => $row) {
            if (isset($at[$key($row)])) {
                $found[$position] = ['was' => $at[$key($row)], 'same' => true];
            } elseif (1 === \count($then) && 1 === \count($now)) {
                $found[$position] = ['was' => (int) array_key_first($then), 'same' => false];
            }
        }
        ksort($found);

        return $found;
    }
}
