<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Record;

use LucidStep\Core\Record\AttemptRows;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Verdict\RoundFacts;
use LucidStep\Core\Verdict\Rounds;
use LucidStep\Core\Verdict\Verdict;

/**
 * Acts on an attempt, each with its event, and the rows that they leave, kept by hand.
 *
 * @phpstan-import-type Round from AttemptRows
 */
trait RowsByHand
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
            'environment_id' => null,
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
     * @param  array<string, mixed>  $payload
     * @param  list<string>  $evidence
     */
    private function event(string $kind, array $payload, array $evidence = []): void
    {
        $at = \count($this->events) + 1;
        $this->events[] = new Event('attempt', $at, $kind, 'me', null, 1_800_000_000_000_000, null, $payload, $evidence);
    }
}
