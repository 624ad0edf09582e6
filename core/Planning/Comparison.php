<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Two cycles or builds beside each other: what moved since (rules of the job, 12). Swapping the two exchanges the classes.
 */
final class Comparison
{
    /** Classes, those that ask for something first. */
    public const CLASSES = ['newly_failing', 'still_failing', 'no_longer_failing', 'changed', 'new', 'gone', 'same'];

    /** What an entry shows that nobody has walked in this cycle. */
    private const NOT_WALKED = ['not_run'];

    /** What says nothing yet of how it ends. */
    private const UNDECIDED = ['in_progress', 'retest'];

    /**
     * Entries are the same when they are of one case, configuration and choice of rows; several of the same are matched
     * in order.
     *
     * @param  list<array{key: string, display_state: string}>  $before of the earlier: what makes entries the same, and what they
     *     show
     * @param  list<array{key: string, display_state: string}>  $after
     *
     * @return list<array{before: ?int, after: ?int, is: value-of<self::CLASSES>}> places in the lists, in the order of the later,
     *     then what is only in the earlier
     */
    public static function of(array $before, array $after): array
    {
        $places = [];
        foreach ($before as $i => $entry) {
            $places[$entry['key']][] = $i;
        }
        $pairs = [];
        foreach ($after as $j => $entry) {
            $i = isset($places[$entry['key']]) ? array_shift($places[$entry['key']]) : null;
            $pairs[] = [
                'before' => $i,
                'after' => $j,
                'is' => self::change(null === $i ? null : $before[$i]['display_state'], $entry['display_state']),
            ];
        }
        $left = array_merge([], ...array_values($places));
        sort($left);
        foreach ($left as $i) {
            $pairs[] = ['before' => $i, 'after' => null, 'is' => self::change($before[$i]['display_state'], null)];
        }

        return $pairs;
    }

    /**
     * @param  ?string  $before what it showed; null: it was not there
     *
     * @return value-of<self::CLASSES>
     */
    public static function change(?string $before, ?string $after): string
    {
        $walked = static fn(?string $shown): bool => null !== $shown && !\in_array($shown, self::NOT_WALKED, true);

        return match (true) {
            null === $before => 'new',
            null === $after => 'gone',
            'fail' === $before && 'fail' === $after => 'still_failing',
            $before === $after => 'same',
            !$walked($before) => 'new',
            !$walked($after) => 'gone',
            \in_array($before, self::UNDECIDED, true), \in_array($after, self::UNDECIDED, true) => 'changed',
            'fail' === $after => 'newly_failing',
            'fail' === $before => 'no_longer_failing',
            default => 'changed',
        };
    }

    /**
     * Whether the first is the earlier of two: by the order of their builds, then by date, then by number.
     *
     * @param  array{build: ?int, date: string, number: int}  $one build: its place in the order of builds
     * @param  array{build: ?int, date: string, number: int}  $other
     */
    public static function isEarlier(array $one, array $other): bool
    {
        $byBuild = null === $one['build'] || null === $other['build'] ? 0 : $one['build'] <=> $other['build'];

        return ($byBuild ?: [$one['date'], $one['number']] <=> [$other['date'], $other['number']]) < 0;
    }
}
