<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

/**
 * What requirements show, and nothing more: the same as {@see RequirementTree} says, for many builds at once.
 */
final class RequirementStates
{
    /**
     * @param  array<string, ?string>  $parents by id, each after the one above it
     * @param  array<string, CoverageState>  $own what those show that have cases, by these alone
     *
     * @return array<string, CoverageState> by id, in the same order
     */
    public static function of(array $parents, array $own): array
    {
        $worst = $own;
        foreach (array_reverse($parents) as $id => $parent) {
            $worst[$id] ??= CoverageState::Uncovered;
            if (null !== $parent && \array_key_exists($parent, $parents)) {
                $worst[$parent] = CoverageState::worst([$worst[$id], $worst[$parent] ?? $worst[$id]]) ?? $worst[$id];
            }
        }

        $states = [];
        foreach ($parents as $id => $_) {
            $states[$id] = $worst[$id];
        }

        return $states;
    }
}
