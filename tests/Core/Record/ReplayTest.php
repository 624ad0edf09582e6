<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Record;

use LucidStep\Core\Record\AttemptRows;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\Replay;
use LucidStep\Core\Verdict\RoundFacts;
use LucidStep\Core\Verdict\Rounds;
use LucidStep\Core\Verdict\Verdict;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * What events come to, against rows that are kept beside them by hand, as the application keeps its own.
 *
 * @phpstan-import-type Round from AttemptRows
 */
final class ReplayTest extends TestCase
{
    private const STEP = [
        'verdict' => 'not_run',
        'note' => '',
        'happened' => '',
        'reason' => '',
        'waits_on' => '',
        'active_ms' => 0,
        'tries' => 0,
        'tries_failed' => 0,
    ];

    private const BEGAN = [
        ['values' => [['Route', 'North'], ['pin', '••••']], 'repeats' => null],
        ['values' => [['Route', ''], ['pin', '']], 'repeats' => null],
    ];

    /** @var list<Event> */
    private array $events = [];

    /** @var array<string, scalar|null> */
    private array $attempt = [];

    /** @var array<int, Round> */
    private array $rounds = [];

    /** @var array<string, array<string, scalar|null>> */
    private array $evidence = [];

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

    private function act(int $what): void
    {
        $round = mt_rand(1, \count($this->rounds));
        $step = mt_rand(1, 3);
        $words = ['It sank', '', 'a', 'Größer als 你好'][mt_rand(0, 3)];
        $verdicts = ['pass', 'fail', 'blocked', 'not_applicable', 'not_run'];
        match ($what) {
            0, 1, 2, 3 => null === $this->rounds[$round]['skipped']
                ? $this->judge($round, $step, $verdicts[mt_rand(0, 4)], $words)
                : $this->takeUp($round),
            4 => $this->note($round, $step, $words),
            5 => $this->note(null, null, $words),
            6 => $this->tried($round, $step),
            7 => $this->skip($round),
            8 => $this->repeat($round),
            9 => $this->picture('e' . \count($this->evidence), $round, $step),
            10 => $this->takeOver('person ' . mt_rand(1, 3), $words),
            11 => $this->away(mt_rand(0, 5000)),
            default => $this->changeEvidence($words),
        };
        $this->rollUp();
    }

    private function start(): void
    {
        $this->attempt = [
            'number' => 1,
            'tester' => 'me',
            'build' => 'b1',
            'configuration' => null,
            'environment' => '',
            'snapshot_sha256' => 'first',
            'override_reason' => null,
            'parallel_reason' => null,
            'late_of' => null,
            'takeover_word' => '',
            'remark' => '',
            'state' => 'open',
            'verdict' => null,
            'roll_up' => 'not_run',
            'overruled' => false,
            'from_list' => false,
            'note' => '',
            'active_ms' => 0,
            'corrected_ms' => null,
            'started_at' => 1_800_000_000,
            'ended_at' => null,
        ];
        foreach ([1, 2] as $at) {
            $this->rounds[$at] = [
                'skipped' => null,
                'repeats' => null,
                'roll_up' => 'not_run',
                'values' => self::BEGAN[$at - 1]['values'],
                'steps' => [1 => self::STEP, 2 => self::STEP, 3 => self::STEP],
            ];
        }
        $this->event('started', [
            'number' => 1,
            'tester' => 'me',
            'build' => 'b1',
            'configuration' => null,
            'environment' => '',
            'word' => '',
            'snapshot_sha256' => 'first',
        ]);
    }

    private function judge(int $round, int $step, string $verdict, string $happened = ''): void
    {
        $active = mt_rand(0, 9000);
        $said = '' === $happened ? [] : ['happened' => $happened];
        $this->event('not_run' === $verdict ? 'verdict_taken_back' : 'verdict_given', [
            'round' => $round,
            'step' => $step,
            'to' => $verdict,
            'active_ms' => $active,
            ...$said,
        ]);
        $row = &$this->rounds[$round]['steps'][$step];
        $row = ['verdict' => $verdict, 'happened' => $happened, 'active_ms' => (int) $row['active_ms'] + $active] + $row;
        $this->attempt['active_ms'] = (int) $this->attempt['active_ms'] + $active;
        $this->rollUp();
    }

    private function note(?int $round, ?int $step, string $words): void
    {
        if (null === $round || null === $step) {
            $this->event('note_written', ['from' => $this->attempt['remark'], 'to' => $words]);
            $this->attempt['remark'] = $words;

            return;
        }
        $this->event('note_written', ['round' => $round, 'step' => $step, 'to' => $words]);
        $this->rounds[$round]['steps'][$step]['note'] = $words;
    }

    private function tried(int $round, int $step): void
    {
        $row = &$this->rounds[$round]['steps'][$step];
        $row['tries'] = (int) $row['tries'] + 1;
        $row['tries_failed'] = (int) $row['tries_failed'] + 1;
        $this->event('tried', [
            'round' => $round,
            'step' => $step,
            'failed' => true,
            ...array_intersect_key($row, ['tries' => 0, 'tries_failed' => 0]),
        ]);
    }

    private function skip(int $round): void
    {
        $this->event('round_skipped', ['round' => $round, 'reason' => 'no time']);
        $this->rounds[$round]['skipped'] = 'no time';
    }

    private function takeUp(int $round): void
    {
        $this->event('round_taken_up', ['round' => $round]);
        $this->rounds[$round]['skipped'] = null;
    }

    private function repeat(int $round): void
    {
        if (\in_array($round, array_column($this->rounds, 'repeats'), true)) {
            return;
        }
        $this->event('round_repeated', ['round' => $round]);
        $this->rounds[\count($this->rounds) + 1] = [
            'skipped' => null,
            'repeats' => $round,
            'roll_up' => 'not_run',
            'values' => $this->rounds[$round]['values'],
            'steps' => [1 => self::STEP, 2 => self::STEP, 3 => self::STEP],
        ];
    }

    private function picture(string $id, int $round, int $step): void
    {
        $this->event(
            'evidence_added',
            ['evidence' => $id, 'name' => 'a.png', 'caption' => '', 'round' => $round, 'step' => $step, 'source' => 'file'],
            ["file of {$id}"],
        );
        $this->evidence[$id] = [
            'sha256' => "file of {$id}",
            'link' => null,
            'name' => 'a.png',
            'caption' => '',
            'round' => $round,
            'step' => $step,
            'source' => 'file',
            'added_by' => 'me',
            'marked' => null,
            'markup_sha256' => null,
            'removed' => false,
            'copy_of' => null,
        ];
    }

    private function changeEvidence(string $words): void
    {
        $id = array_key_last($this->evidence);
        if (null === $id) {
            return;
        }
        [$kind, $said, $hashes, $now] = [
            ['evidence_captioned', ['to' => $words], [], ['caption' => $words]],
            ['evidence_moved', ['round' => 1, 'step' => null], [], ['round' => 1, 'step' => null]],
            ['evidence_marked', ['markup_sha256' => 'drawn'], ['marked'], ['marked' => 'marked', 'markup_sha256' => 'drawn']],
            ['evidence_marked', ['markup_sha256' => 'none'], [], ['marked' => null, 'markup_sha256' => null]],
            ['evidence_redacted', ['from' => 'x'], ['black'], ['sha256' => 'black', 'marked' => null, 'markup_sha256' => null]],
            ['evidence_removed', [], [], ['removed' => true]],
        ][mt_rand(0, 5)];
        $this->event($kind, ['evidence' => $id, ...$said], $hashes);
        $this->evidence[$id] = $now + $this->evidence[$id];
    }

    private function takeOver(string $by, string $word): void
    {
        $this->event('taken_over', ['from' => $this->attempt['tester'], 'to' => $by, 'word' => $word]);
        $this->attempt = ['tester' => $by, 'takeover_word' => $word] + $this->attempt;
    }

    private function away(int $milliseconds): void
    {
        $this->event('away_decided', ['away_ms' => 9000, 'counted_ms' => $milliseconds]);
        $this->attempt['active_ms'] = (int) $this->attempt['active_ms'] + $milliseconds;
    }

    private function rollUp(): void
    {
        $facts = [];
        foreach ($this->rounds as $at => $round) {
            $verdicts = array_map(static fn(array $s): Verdict => Verdict::from((string) $s['verdict']), array_values($round['steps']));
            $facts[] = $one = new RoundFacts($at, $verdicts, null !== $round['skipped'], $round['repeats']);
            $this->rounds[$at]['roll_up'] = $one->rollUp()->value;
        }
        $this->attempt['roll_up'] = Rounds::rollUp($facts)->value;
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

    /**
     * @param  array<string, mixed>  $payload
     * @param  list<string>  $evidence
     */
    private function event(string $kind, array $payload, array $evidence = []): void
    {
        $at = \count($this->events) + 1;
        $this->events[] = new Event('attempt', $at, $kind, 'me', null, 1_800_000_000_000_000, null, $payload, $evidence);
    }
}
