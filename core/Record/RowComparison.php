<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

use LucidStep\Core\Verdict\RoundFacts;
use LucidStep\Core\Verdict\Rounds;

/**
 * What the events of an attempt come to ({@see Replay}), laid beside what people are shown of it.
 *
 * @phpstan-import-type Fields from Replay
 */
final readonly class RowComparison
{
    /** Seconds between an act and its event. */
    private const MOMENTS = 30;

    /**
     * @param  Fields  $attempt
     * @param  array<int, ?string>  $skipped why a round was left out, by its place
     * @param  list<int>  $repeated the rounds that were walked once more
     * @param  array<int, array<int, Fields>>  $steps by round and place
     * @param  array<string, Fields>  $evidence by id
     * @param  array<string, Fields>  $copies what was done with a copy of another attempt's evidence, by the id of the original
     */
    public function __construct(
        private array $attempt,
        private array $skipped,
        private array $repeated,
        private array $steps,
        private array $evidence,
        private array $copies,
    ) {}

    /**
     * @return ?string the first difference in words; null when there is none
     */
    public function difference(AttemptRows $shown): ?string
    {
        return $this->ofAttempt($shown) ?? ($this->ofRounds($shown) ?? ($this->ofRollUps($shown) ?? $this->ofEvidence($shown)));
    }

    private function ofAttempt(AttemptRows $shown): ?string
    {
        return [] === $this->attempt ? 'no event starts the attempt' : self::first('the attempt', $this->attempt, $shown->attempt);
    }

    private function ofRounds(AttemptRows $shown): ?string
    {
        $left = $this->steps;
        foreach ($shown->rounds as $at => $round) {
            $why = self::first("round {$at}", ['skipped' => $this->skipped[$at] ?? null], ['skipped' => $round['skipped']]);
            $why ??= self::ofValues($at, $shown);
            foreach ($round['steps'] as $place => $step) {
                $why ??= self::first("step {$place} of round {$at}", $left[$at][$place] ?? Replay::STEP, $step);
                unset($left[$at][$place]);
            }
            if (null !== $why) {
                return $why;
            }
        }
        foreach ($left as $at => $steps) {
            foreach ($steps as $place => $step) {
                return "step {$place} of round {$at} is not there any more";
            }
        }
        $repeated = array_values(array_filter(array_column($shown->rounds, 'repeats'), is_int(...)));
        $missing = array_diff($this->repeated, $repeated);
        // What takes in late acts begins with the rounds of the attempt it stands beside.
        $added = null === ($this->attempt['late_of'] ?? null) ? array_diff($repeated, $this->repeated) : [];

        return match (true) {
            [] !== $missing => \sprintf('the second walk of round %d is not there any more', (int) reset($missing)),
            [] !== $added => \sprintf('no event walks round %d once more', (int) reset($added)),
            default => null,
        };
    }

    /**
     * Whether a round has the values it began with, or those of the round that it walks once more.
     */
    private static function ofValues(int $at, AttemptRows $shown): ?string
    {
        $of = $at;
        while (!isset($shown->began[$of - 1]) && \is_int($shown->rounds[$of]['repeats'] ?? null) && $shown->rounds[$of]['repeats'] < $of) {
            $of = $shown->rounds[$of]['repeats'];
        }
        if ([] === $shown->began || !isset($shown->began[$of - 1])) {
            return null;
        }
        [$said, $is] = [$shown->began[$of - 1]['values'], $shown->rounds[$at]['values'] ?? []];
        foreach ([...$said, ...$is] as [$name]) {
            [$before, $now] = [self::value($said, $name), self::value($is, $name)];
            if ($before !== $now) {
                return \sprintf('round %d shows %s %s, it began with %s', $at, $name, self::quoted($now), self::quoted($before));
            }
        }

        return null;
    }

    /**
     * @param  list<array{string, string}>  $values
     */
    private static function value(array $values, string $name): ?string
    {
        foreach ($values as [$one, $value]) {
            if ($one === $name) {
                return $value;
            }
        }

        return null;
    }

    /**
     * What the rounds and the attempt come to, by the rules of the roll-up.
     */
    private function ofRollUps(AttemptRows $shown): ?string
    {
        $facts = [];
        foreach ($shown->rounds as $at => $round) {
            $verdicts = array_map(Replay::verdict(...), $round['steps']);
            $facts[] = $one = new RoundFacts($at, array_values($verdicts), null !== $round['skipped'], $round['repeats']);
            if ($one->rollUp()->value !== $round['roll_up']) {
                return self::first("round {$at}", ['roll_up' => $one->rollUp()->value], ['roll_up' => $round['roll_up']]);
            }
        }
        // An attempt that is finished came to what its finish says, until something late is judged after it.
        $comes = $this->attempt['roll_up'] ?? Rounds::rollUp($facts)->value;

        return self::first('the attempt', ['roll_up' => $comes], $shown->attempt);
    }

    private function ofEvidence(AttemptRows $shown): ?string
    {
        foreach ($this->evidence as $id => $said) {
            $why = isset($shown->evidence[$id])
                ? self::first("evidence {$id}", $said, $shown->evidence[$id])
                : "evidence {$id} is not there any more";
            if (null !== $why) {
                return $why;
            }
        }
        foreach ($shown->evidence as $id => $row) {
            $of = $row['copy_of'] ?? null;
            if (isset($this->evidence[$id])) {
                continue;
            }
            if (!\is_string($of) || !isset($this->copies[$of])) {
                return "no event adds evidence {$id}";
            }
            $why = self::first("evidence {$id}", $this->copies[$of], $row);
            if (null !== $why) {
                return $why;
            }
        }

        return null;
    }

    /**
     * @param  Fields  $said
     * @param  Fields  $shown
     */
    private static function first(string $what, array $said, array $shown): ?string
    {
        foreach ($said as $field => $value) {
            $is = $shown[$field] ?? null;
            // What was done and when it was written down are moments apart.
            $near = str_ends_with($field, '_at') && \is_int($is) && \is_int($value) && abs($is - $value) <= self::MOMENTS;
            if ($is !== $value && !$near) {
                return \sprintf('%s shows %s %s, its events say %s', $what, $field, self::quoted($is), self::quoted($value));
            }
        }

        return null;
    }

    private static function quoted(string|int|float|bool|null $value): string
    {
        return match (true) {
            null === $value || '' === $value => 'nothing',
            \is_bool($value) => $value ? 'yes' : 'no',
            \is_string($value) => '“' . (mb_strlen($value) > 80 ? mb_substr($value, 0, 80) . '…' : $value) . '”',
            default => (string) $value,
        };
    }
}
