<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * Finds routines in a list of sentences: a run of them that equals all steps of one, in order.
 */
final class RoutineRuns
{
    /**
     * @param  list<string>  $sentences
     * @param  array<string, list<string>>  $routines what their steps say, by id; empty ones are never found
     *
     * @return list<string|array{routine: string}> the sentences, with a routine in place of each run; the longer one where two fit
     */
    public static function in(array $sentences, array $routines): array
    {
        uasort($routines, static fn(array $a, array $b): int => \count($b) <=> \count($a));
        $folded = array_map(self::folded(...), $sentences);
        $steps = array_map(static fn(array $of): array => array_map(self::folded(...), $of), $routines);
        $found = [];
        for ($at = 0; $at < \count($sentences); ++$at) {
            $fits = null;
            foreach ($steps as $id => $of) {
                if ([] !== $of && \array_slice($folded, $at, \count($of)) === $of) {
                    $fits = $id;
                    break;
                }
            }
            if (null === $fits) {
                $found[] = $sentences[$at];
            } else {
                $found[] = ['routine' => (string) $fits];
                $at += \count($steps[$fits]) - 1;
            }
        }

        return $found;
    }

    /**
     * Case, spaces, quotes and the full stop at the end make no difference.
     */
    private static function folded(string $text): string
    {
        $plain = (string) preg_replace(['/[“”„«»]/u', '/\s+/u'], ['"', ' '], trim($text));

        return mb_strtolower(rtrim($plain, '.'));
    }
}
