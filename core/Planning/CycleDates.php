<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Whether a cycle's dates stand: start ≤ end ≤ the milestone's date.
 */
final class CycleDates
{
    /**
     * What is wrong with them, by field: `starts_on`, `ends_on`; empty when they stand.
     *
     * @param  ?string  $milestone its date, when the cycle belongs to one
     *
     * @return array<string, string>
     */
    public static function faults(string $name, string $start, string $end, ?string $milestone = null, string $milestoneName = ''): array
    {
        $faults = [];
        if ($end < $start) {
            $faults['ends_on'] = "“{$name}” would end on {$end}, before it starts on {$start}.";
        }
        if (null !== $milestone && $end > $milestone) {
            $faults['ends_on'] ??= "“{$name}” would end on {$end}, after “{$milestoneName}” on {$milestone}.";
        }
        if (null !== $milestone && $start > $milestone) {
            $faults['starts_on'] = "“{$name}” would start on {$start}, after “{$milestoneName}” on {$milestone}.";
        }

        return $faults;
    }
}
