<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

use LucidStep\Core\Verdict\RoundFacts;
use LucidStep\Core\Verdict\Rounds;
use LucidStep\Core\Verdict\Verdict;

/**
 * What the events of an attempt come to when they are gone through again, to be compared with what people are shown.
 *
 * @phpstan-type Fields array<string, scalar|null>
 */
final class Replay
{
    public const STEP = [
        'verdict' => 'not_run',
        'note' => '',
        'happened' => '',
        'reason' => '',
        'waits_on' => '',
        'active_ms' => 0,
        'tries' => 0,
        'tries_failed' => 0,
    ];

    /** @var Fields */
    private array $attempt = [];

    /** @var array<int, ?string> why a round was left out, by its place */
    private array $skipped = [];

    /** @var list<int> the rounds that were walked once more */
    private array $repeated = [];

    /** @var array<int, array<int, Fields>> steps by round and place */
    private array $steps = [];

    /** @var array<string, Fields> evidence by id */
    private array $evidence = [];

    /** @var array<string, Fields> what was done with a copy of another attempt's evidence, by the id of the original */
    private array $copies = [];

    /**
     * @param  list<Event>  $events in order of sequence
     */
    private function __construct(array $events)
    {
        foreach ($events as $event) {
            $this->take($event, $event->payload);
        }
    }

    /**
     * The first difference between what the events say and what is shown, in words.
     *
     * @param  list<Event>  $events in order of sequence
     *
     * @return ?string null when there is none
     */
    public static function difference(array $events, AttemptRows $shown): ?string
    {
        $said = new self($events);

        return (new RowComparison(
            $said->attempt,
            $said->skipped,
            $said->repeated,
            $said->steps,
            $said->evidence,
            $said->copies,
        ))->difference($shown);
    }

    /**
     * The rows that events come to.
     *
     * @param  list<Event>  $events in order of sequence
     * @param  list<array{values: list<array{string, string}>, repeats: ?int}>  $began the rounds that the attempt began with
     * @param  int  $steps how many steps a round has
     */
    public static function rows(array $events, array $began, int $steps): AttemptRows
    {
        $said = new self($events);
        $last = max([1, ...array_keys($said->steps), ...array_keys($said->skipped), ...$said->repeated]);
        $first = [] === $began ? max(1, $last - \count($said->repeated)) : \count($began);
        $repeats = [...array_pad(array_column($began, 'repeats'), $first, null), ...$said->repeated];
        $rounds = $facts = [];
        foreach ($repeats as $i => $of) {
            $at = $i + 1;
            $results = $verdicts = [];
            for ($step = 1; $step <= $steps; $step++) {
                $results[$step] = $said->steps[$at][$step] ?? self::STEP;
                $verdicts[] = self::verdict($results[$step]);
            }
            $facts[] = $one = new RoundFacts($at, $verdicts, isset($said->skipped[$at]), $of);
            $rounds[$at] = [
                'skipped' => $said->skipped[$at] ?? null,
                'repeats' => $of,
                'roll_up' => $one->rollUp()->value,
                'values' => $began[$i]['values'] ?? ($rounds[$of]['values'] ?? null),
                'steps' => $results,
            ];
        }

        return new AttemptRows(['roll_up' => Rounds::rollUp($facts)->value, ...$said->attempt], $rounds, $said->evidence);
    }

    /**
     * @param  array<string, mixed>  $p
     */
    private function take(Event $event, array $p): void
    {
        match ($event->kind) {
            'started' => $this->start($event, $p),
            'abandoned' => $this->set(['state' => 'abandoned', 'ended_at' => self::second($event)]),
            'taken_over' => $this->set(['tester' => $p['to'], 'takeover_word' => $p['word'] ?? '']),
            'surroundings_said' => $this->set(self::some($p, ['build', 'configuration', 'environment_id', 'environment'])),
            'version_taken' => $this->carry($p),
            'verdict_given', 'verdict_taken_back' => $this->judge($p),
            'tried' => $this->step($p, self::some($p, ['tries', 'tries_failed'])),
            'note_written' => isset($p['step']) ? $this->step($p, ['note' => $p['to']]) : $this->set(['remark' => $p['to']]),
            'away_decided' => $this->add(self::whole($p['counted_ms'])),
            'round_skipped' => ($this->skipped[self::whole($p['round'])] = self::word($p['reason'] ?? '')),
            'round_taken_up' => ($this->skipped[self::whole($p['round'])] = null),
            'round_repeated' => ($this->repeated[] = self::whole($p['round'])),
            'finished' => $this->set([
                'state' => 'finished',
                'ended_at' => self::second($event),
                ...self::some($p, ['verdict', 'roll_up', 'overruled', 'note', 'active_ms', 'corrected_ms']),
                'from_list' => true === ($p['from_list'] ?? false),
            ]),
            'time_corrected' => $this->set(['corrected_ms' => $p['to_ms']]),
            'evidence_added' => ($this->evidence[self::word($p['evidence'])] = self::scalars([
                'sha256' => $event->evidence[0] ?? null,
                'link' => $p['link'] ?? null,
                ...self::some($p, ['name', 'caption', 'round', 'step', 'source']),
                'added_by' => $event->actor,
                'marked' => null,
                'markup_sha256' => null,
                'removed' => false,
            ])),
            'evidence_captioned' => $this->show($p, ['caption' => $p['to']]),
            'evidence_moved' => $this->show($p, self::some($p, ['round', 'step'])),
            'evidence_marked' => $this->show($p, [
                'marked' => $event->evidence[0] ?? null,
                'markup_sha256' => [] === $event->evidence ? null : $p['markup_sha256'],
            ]),
            'evidence_redacted' => $this->show($p, ['sha256' => $event->evidence[0] ?? null, 'marked' => null, 'markup_sha256' => null]),
            'evidence_removed' => $this->show($p, ['removed' => true]),
            default => null,
        };
    }

    /**
     * @param  array<string, mixed>  $p
     */
    private function start(Event $event, array $p): void
    {
        $this->attempt = self::scalars([
            ...self::some($p, ['number', 'build', 'configuration', 'environment_id', 'environment', 'snapshot_sha256']),
            'tester' => $p['tester'] ?? $event->actor,
            'override_reason' => self::word($p['word'] ?? '') ?: null,
            'parallel_reason' => isset($p['parallel_reason']) ? self::word($p['parallel_reason']) : null,
            'late_of' => isset($p['late_of']) ? self::word($p['late_of']) : null,
            'takeover_word' => '',
            'remark' => '',
            'state' => 'open',
            'verdict' => null,
            'overruled' => false,
            'from_list' => false,
            'note' => '',
            'active_ms' => 0,
            'corrected_ms' => null,
            'started_at' => self::second($event),
            'ended_at' => null,
        ]);
    }

    /**
     * @param  array<string, mixed>  $p
     */
    private function judge(array $p): void
    {
        $active = self::whole($p['active_ms']);
        $before = $this->steps[self::whole($p['round'])][self::whole($p['step'])] ?? self::STEP;
        $this->step($p, [
            'verdict' => $p['to'],
            'happened' => $p['happened'] ?? '',
            'reason' => $p['reason'] ?? '',
            'waits_on' => $p['waits_on'] ?? '',
            'active_ms' => self::whole($before['active_ms']) + $active,
        ]);
        $this->add($active);
        // What the rounds come to is what they come to now.
        unset($this->attempt['roll_up']);
    }

    /**
     * Results and evidence of carried steps follow them in every round; what was not carried is not shown any more.
     *
     * @param  array<string, mixed>  $p
     */
    private function carry(array $p): void
    {
        $to = [];
        foreach ((array) $p['carried'] as $one) {
            $to[self::whole(((array) $one)['from'])] = self::whole(((array) $one)['to']);
        }
        foreach ($this->steps as $round => $steps) {
            $this->steps[$round] = [];
            foreach ($steps as $at => $step) {
                if (isset($to[$at])) {
                    $this->steps[$round][$to[$at]] = $step;
                }
            }
        }
        foreach ($this->evidence as $id => $shown) {
            if (null !== $shown['step']) {
                $this->evidence[$id]['step'] = $to[self::whole($shown['step'])] ?? null;
            }
        }
        $this->set(self::some($p, ['snapshot_sha256']));
        unset($this->attempt['roll_up']);
    }

    /**
     * @param  array<string, mixed>  $p
     * @param  array<string, mixed>  $now
     */
    private function step(array $p, array $now): void
    {
        $round = self::whole($p['round']);
        $at = self::whole($p['step']);
        $this->steps[$round][$at] = self::scalars($now) + ($this->steps[$round][$at] ?? self::STEP);
    }

    /**
     * @param  array<string, mixed>  $p
     * @param  array<string, mixed>  $now
     */
    private function show(array $p, array $now): void
    {
        $id = self::word($p['evidence']);
        if (isset($this->evidence[$id])) {
            $this->evidence[$id] = self::scalars($now) + $this->evidence[$id];
        } elseif (!isset($now['removed'])) {
            $this->copies[$id] = self::scalars($now) + ($this->copies[$id] ?? []);
        }
    }

    /**
     * @param  array<string, mixed>  $now
     */
    private function set(array $now): void
    {
        $this->attempt = self::scalars($now) + $this->attempt;
    }

    private function add(int $milliseconds): void
    {
        $this->attempt['active_ms'] = self::whole($this->attempt['active_ms'] ?? 0) + $milliseconds;
    }

    /**
     * @param  array<string, mixed>  $p
     * @param  list<string>  $names
     *
     * @return array<string, mixed> those fields; null where one is missing
     */
    private static function some(array $p, array $names): array
    {
        return array_combine($names, array_map(static fn(string $name): mixed => $p[$name] ?? null, $names));
    }

    /**
     * @param  array<string, mixed>  $fields
     *
     * @return Fields
     */
    private static function scalars(array $fields): array
    {
        return array_map(static fn(mixed $v): string|int|float|bool|null => \is_scalar($v) ? $v : null, $fields);
    }

    /**
     * @param  Fields  $step
     */
    public static function verdict(array $step): Verdict
    {
        return Verdict::tryFrom(self::word($step['verdict'] ?? '')) ?? Verdict::NotRun;
    }

    private static function second(Event $event): int
    {
        return intdiv($event->serverTime, 1_000_000);
    }

    private static function whole(mixed $value): int
    {
        return \is_int($value) ? $value : 0;
    }

    private static function word(mixed $value): string
    {
        return \is_string($value) ? $value : '';
    }
}
