<?php

declare(strict_types=1);

namespace LucidStep\Core\Casebook;

use LucidStep\Core\Text\Words;

/**
 * Two lists of steps beside each other: which step became which.
 */
final class Comparison
{
    /** From here on two steps count as the same one, rewritten. */
    private const ALIKE = 0.4;

    /**
     * Aligned so that the sum of likenesses is greatest; a step taken out here and put in there unchanged is moved.
     *
     * @param  list<Step>  $from
     * @param  list<Step>  $to
     *
     * @return list<StepPair> in the order of both, what is gone before what came in its place
     */
    public static function steps(array $from, array $to): array
    {
        $n = \count($from);
        $m = \count($to);
        $like = self::likenesses($from, $to);
        $best = array_fill(0, $n + 1, array_fill(0, $m + 1, 0.0));
        for ($i = $n - 1; $i >= 0; $i--) {
            for ($j = $m - 1; $j >= 0; $j--) {
                $best[$i][$j] = max($best[$i + 1][$j], $best[$i][$j + 1], $like[$i][$j] > 0 ? $like[$i][$j] + $best[$i + 1][$j + 1] : 0.0);
            }
        }
        $pairs = [];
        $i = $j = 0;
        while ($i < $n || $j < $m) {
            if ($i < $n && $j < $m && $like[$i][$j] > 0 && abs($best[$i][$j] - $like[$i][$j] - $best[$i + 1][$j + 1]) < 1e-9) {
                $pairs[] = new StepPair($i, $j, $from[$i]->equals($to[$j]) ? 'same' : 'changed');
                $i++;
                $j++;
            } elseif ($i < $n && ($j >= $m || abs($best[$i][$j] - $best[$i + 1][$j]) < 1e-9)) {
                $pairs[] = new StepPair($i++, null, 'removed');
            } else {
                $pairs[] = new StepPair(null, $j++, 'added');
            }
        }

        return self::moved($pairs, $from, $to);
    }

    /**
     * Steps that came without their pictures get those of the steps that they were before. When any has a picture of
     * its own, all are left as they came.
     *
     * @param  list<Step>  $before
     * @param  list<Step>  $now
     *
     * @return list<Step>
     */
    public static function withPicturesOf(array $before, array $now): array
    {
        $has = static fn(Step $s): bool => [] !== $s->files;
        if ([] === array_filter($before, $has) || [] !== array_filter($now, $has)) {
            return $now;
        }
        foreach (self::steps(array_map(static fn(Step $s): Step => $s->withFiles([]), $before), $now) as $pair) {
            if (null !== $pair->from && null !== $pair->to) {
                $now[$pair->to] = $now[$pair->to]->withFiles($before[$pair->from]->files);
            }
        }

        return array_values($now);
    }

    /**
     * @param  list<Step>  $from
     * @param  list<Step>  $to
     *
     * @return array<int, array<int, float>> 0 where the two are not the same step
     */
    private static function likenesses(array $from, array $to): array
    {
        $words = static fn(Step $s): Words => Words::of("{$s->action} {$s->data} {$s->expected}");
        $a = array_map($words, $from);
        $b = array_map($words, $to);
        $like = [];
        foreach ($from as $i => $one) {
            foreach ($to as $j => $other) {
                $like[$i][$j] = match (true) {
                    $one->equals($other) => 2.0,
                    $one->routine !== $other->routine => 0.0,
                    null !== $one->routine => 1.0,
                    default => self::score($one, $other, $a[$i]->likeness($b[$j])),
                };
            }
        }

        return $like;
    }

    private static function score(Step $one, Step $other, float $likeness): float
    {
        $kept = ('' !== $one->action && $one->action === $other->action) || ('' !== $one->expected && $one->expected === $other->expected);
        $score = max($likeness, $kept ? self::ALIKE : 0.0);

        return $score < self::ALIKE ? 0.0 : $score;
    }

    /**
     * @param  list<StepPair>  $pairs
     * @param  list<Step>  $from
     * @param  list<Step>  $to
     *
     * @return list<StepPair>
     */
    private static function moved(array $pairs, array $from, array $to): array
    {
        foreach ($pairs as $at => $pair) {
            if ('added' !== $pair->is) {
                continue;
            }
            foreach ($pairs as $was => $gone) {
                if ('removed' === $gone->is && $from[(int) $gone->from]->equals($to[(int) $pair->to])) {
                    $pairs[$at] = new StepPair($gone->from, $pair->to, 'moved');
                    unset($pairs[$was]);
                    break;
                }
            }
        }

        return array_values($pairs);
    }
}
