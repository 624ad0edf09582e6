<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Record;

use LucidStep\Core\Record\AttemptRows;
use LucidStep\Core\Record\Replay;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * What events come to, against rows that are kept beside them by hand, as the application keeps its own.
 *
 * @phpstan-import-type Round from AttemptRows
 */
final class ReplayTest extends TestCase
{
    use RowsByHand;

    protected function setUp(): void
    {
        $this->start();
    }

    /**
     * @return iterable<string, array{int}>
     */
    public static function seeds(): iterable
    {
        foreach (range(1, 40) as $seed) {
            yield "seed {$seed}" => [$seed];
        }
    }

    /**
     * Whatever was done, in any order: the rows that follow from it show no difference, and one field changed anywhere in them does.
     */
    #[DataProvider('seeds')]
    public function test_rows_that_follow_from_events_are_right_and_any_other_is_named(int $seed): void
    {
        mt_srand($seed);
        for ($n = 0; $n < 40; $n++) {
            $this->act(mt_rand(0, 12));
            $after = "after {$n}: " . $this->events[\count($this->events) - 1]->kind;
            self::assertNull($this->difference(), $after);
            $made = Replay::rows($this->events, self::BEGAN, 3);
            self::assertEquals($this->attempt, $made->attempt, $after);
            self::assertEquals($this->rounds, $made->rounds, $after);
            self::assertSame(array_keys($this->evidence), array_keys($made->evidence), $after);
        }
        foreach ($this->changes() as $what => $rows) {
            $said = Replay::difference($this->events, $rows);
            self::assertNotNull($said, $what);
            self::assertStringContainsString(explode(' ', $what)[0], $said, $what);
        }
    }

    public function test_nothing_starts_an_attempt_without_events(): void
    {
        self::assertSame('no event starts the attempt', Replay::difference([], $this->rows()));
    }

    public function test_what_was_carried_into_a_new_version_stands_at_its_new_place_and_the_rest_is_not_shown(): void
    {
        $this->judge(1, 1, 'pass');
        $this->judge(1, 2, 'fail');
        $this->judge(1, 3, 'pass');
        $this->picture('a', 1, 2);
        $this->picture('b', 1, 1);
        // The second step is first now, the third stays, the first is gone; there are four.
        $this->event('version_taken', [
            'from' => 'v1',
            'to' => 'v2',
            'snapshot_sha256' => 'second',
            'carried' => [['from' => 2, 'to' => 1], ['from' => 3, 'to' => 3]],
        ]);
        $this->attempt['snapshot_sha256'] = 'second';
        foreach ($this->rounds as $at => $round) {
            $this->rounds[$at]['steps'] = [
                1 => $round['steps'][2],
                2 => self::STEP,
                3 => $round['steps'][3],
                4 => self::STEP,
            ];
        }
        $this->evidence['a']['step'] = 1;
        $this->evidence['b']['step'] = null;
        $this->rollUp();
        self::assertNull($this->difference());
        $this->rounds[1]['steps'][2]['verdict'] = 'fail';
        self::assertStringContainsString('step 2 of round 1 shows verdict', (string) $this->difference());
    }

    public function test_evidence_of_another_attempt_is_changed_in_a_copy(): void
    {
        $this->event('evidence_captioned', ['evidence' => 'far', 'from' => '', 'to' => 'The bow']);
        $this->evidence['copy'] = ['copy_of' => 'far', 'caption' => 'The bow', 'sha256' => 'x'];
        self::assertNull($this->difference());
        $this->evidence['copy']['caption'] = 'The stern';
        self::assertStringContainsString('evidence copy shows caption “The stern”', (string) $this->difference());
        $this->evidence['copy'] = ['copy_of' => 'elsewhere', 'caption' => 'The bow'];
        self::assertSame('no event adds evidence copy', $this->difference());
    }

    public function test_moments_apart_are_the_same_time_and_a_minute_is_not(): void
    {
        foreach ([0 => true, 29 => true, -29 => true, 60 => false, -86_400 => false] as $off => $same) {
            $this->attempt['started_at'] = 1_800_000_000 + $off;
            self::assertSame($same, null === $this->difference(), "{$off} seconds");
        }
    }

    /**
     * @return iterable<string, AttemptRows> one field changed each, by where it is
     */
    private function changes(): iterable
    {
        $other = static fn(string|int|float|bool|null $v): string|int|bool => match (true) {
            \is_bool($v) => !$v,
            \is_int($v) => $v + 100,
            default => "{$v} and more",
        };
        foreach ($this->attempt as $field => $value) {
            yield "attempt {$field}" => $this->rows([$field => $other($value)] + $this->attempt);
        }
        foreach ($this->rounds as $at => $round) {
            foreach ($round['steps'] as $place => $step) {
                foreach ($step as $field => $value) {
                    $steps = [$place => [$field => $other($value)] + $step] + $round['steps'];
                    $changed = [$at => [...$round, 'steps' => $steps]] + $this->rounds;
                    ksort($changed);
                    yield "step {$place} of {$at}, {$field}" => $this->rows(null, $changed);
                }
            }
            $changed = [$at => [...$round, 'skipped' => null === $round['skipped'] ? 'never' : null]] + $this->rounds;
            yield "round {$at} skipped" => $this->rows(null, $changed);
            foreach ([[['Route', 'South'], ['pin', '••••']], [['Route', 'North']], [...$round['values'] ?? [], ['more', 'x']]] as $values) {
                yield "round {$at} values " . json_encode($values) => $this->rows(
                    null,
                    array_replace($this->rounds, [$at => ['values' => $values] + $round]),
                );
            }
        }
        foreach ($this->evidence as $id => $row) {
            foreach (array_diff_key($row, ['copy_of' => 0]) as $field => $value) {
                $changed = [$id => [$field => $other($value)] + $row] + $this->evidence;
                yield "evidence {$id} {$field}" => $this->rows(null, null, $changed);
            }
            yield "evidence {$id} gone" => $this->rows(null, null, array_diff_key($this->evidence, [$id => 0]));
        }
        yield 'evidence put in' => $this->rows(null, null, ['more' => ['copy_of' => null], ...$this->evidence]);
    }

    /**
     * @param  ?array<string, scalar|null>  $attempt
     * @param  ?array<int, Round>  $rounds
     * @param  ?array<string, array<string, scalar|null>>  $evidence
     */
    private function rows(?array $attempt = null, ?array $rounds = null, ?array $evidence = null): AttemptRows
    {
        return new AttemptRows($attempt ?? $this->attempt, $rounds ?? $this->rounds, $evidence ?? $this->evidence, self::BEGAN);
    }

    private function difference(): ?string
    {
        return Replay::difference($this->events, $this->rows());
    }
}
