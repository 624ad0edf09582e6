<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * What is joined by pairs, directly or through others: entries by conditions, cases by likeness.
 */
final class Groups
{
    /**
     * @param  list<string>  $entries in cycle order
     *
     * @return list<non-empty-list<int>> places of the members in cycle order; an entry without conditions is a group of its own
     */
    public static function of(array $entries, Conditions $conditions): array
    {
        return self::along($entries, array_map(static fn(Condition $c): array => [$c->entry, $c->needs], $conditions->all));
    }

    /**
     * @param  list<string>  $all
     * @param  list<array{string, string}>  $pairs of them; others are passed over
     *
     * @return list<non-empty-list<int>> places of the members in their order; what no pair joins is a group of its own
     */
    public static function along(array $all, array $pairs): array
    {
        $place = array_flip($all);
        $root = range(0, max(0, \count($all) - 1));
        $find = static function (int $i) use (&$root): int {
            while ($root[$i] !== $i) {
                $i = $root[$i] = $root[$root[$i]];
            }

            return $i;
        };
        foreach ($pairs as [$one, $other]) {
            if (isset($place[$one], $place[$other])) {
                $a = $find($place[$one]);
                $b = $find($place[$other]);
                $root[max($a, $b)] = min($a, $b);
            }
        }
        $groups = [];
        foreach (array_keys($all) as $i) {
            $groups[$find($i)][] = $i;
        }

        return array_values($groups);
    }
}
