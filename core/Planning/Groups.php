<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Entries joined by conditions, directly or through others.
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
        $place = array_flip($entries);
        $root = range(0, max(0, \count($entries) - 1));
        $find = static function (int $i) use (&$root): int {
            while ($root[$i] !== $i) {
                $i = $root[$i] = $root[$root[$i]];
            }

            return $i;
        };
        foreach ($conditions->all as $condition) {
            if (isset($place[$condition->entry], $place[$condition->needs])) {
                $a = $find($place[$condition->entry]);
                $b = $find($place[$condition->needs]);
                $root[max($a, $b)] = min($a, $b);
            }
        }
        $groups = [];
        foreach (array_keys($entries) as $i) {
            $groups[$find($i)][] = $i;
        }

        return array_values($groups);
    }
}
