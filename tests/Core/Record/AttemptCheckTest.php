<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Record;

use LucidStep\Core\Record\AttemptCheck;
use LucidStep\Core\Record\AttemptRows;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\FreeText;
use LucidStep\Core\Record\Seal;
use LucidStep\Core\Record\StoredEvent;
use LucidStep\Core\Record\Verification;
use PHPUnit\Framework\TestCase;

/**
 * The check of a record as a whole: what it looks at, in which order, and what it names first.
 */
final class AttemptCheckTest extends TestCase
{
    private const A = '0190f0aa-0000-7000-8000-00000000000a';

    private const C = '0190f0aa-0000-7000-8000-00000000000c';

    private const NAMES = ['started' => 'attempt_started', 'finished' => 'attempt_finished'];

    /** @var list<StoredEvent> */
    private array $events;

    /** @var list<StoredEvent> */
    private array $chain;

    /** @var array<string, mixed> what the check is given beside events and chain */
    private array $given;

    private string $file;

    protected function setUp(): void
    {
        $this->file = hash('sha256', 'a picture');
        $this->events = self::linked(self::A, 'attempt', [
            ['started', ['number' => 1, 'tester' => 'me', 'snapshot_sha256' => str_repeat('a', 64)], []],
            ['note_written', ['from' => '', 'to' => 'The quay was wet'], []],
            [
                'evidence_added',
                ['evidence' => 'e', 'name' => 'a.png', 'caption' => '', 'round' => null, 'step' => null, 'source' => 'file'],
                [$this->file],
            ],
            [
                'finished',
                [
                    'roll_up' => 'not_run',
                    'verdict' => 'pass',
                    'overruled' => true,
                    'note' => 'As it was',
                    'active_ms' => 0,
                    'corrected_ms' => null,
                ],
                [],
            ],
        ]);
        $told = static fn(int $count, StoredEvent $e): array => ['attempt' => self::A, 'events' => $count, 'head' => $e->hash];
        $this->chain = self::linked(self::C, 'cycle', [
            ['attempt_started', $told(1, $this->events[0]), []],
            ['attempt_finished', $told(4, $this->events[3]), []],
        ]);
        $this->given = [
            'tail' => new Seal(4, $this->events[3]->hash),
            'seal' => new Seal(4, $this->events[3]->hash),
            'rows' => self::rows(),
            'entry' => null,
            'files' => [$this->file => $this->file],
            'removals' => [],
            'cycle' => Verification::whole(2, $this->chain[1]->hash, []),
            'signature' => null,
        ];
    }

    public function test_a_whole_record_is_whole(): void
    {
        $found = $this->check();
        self::assertSame(['whole', 4, $this->events[3]->hash], [$found->state, $found->events, $found->head], (string) $found->why);
    }

    public function test_an_attempt_that_no_event_ends_is_open(): void
    {
        array_pop($this->events);
        array_pop($this->chain);
        $open = ['state' => 'open', 'verdict' => null, 'overruled' => false, 'note' => '', 'ended_at' => null];
        $this->given =
            [
                'tail' => new Seal(3, $this->events[2]->hash),
                'seal' => null,
                'rows' => self::rows($open),
                'cycle' => Verification::whole(1, $this->chain[0]->hash, []),
            ] + $this->given;
        self::assertSame('open', $this->check()->state, (string) $this->check()->why);
    }

    /**
     * With everything wrong at once each is named in its turn, when what comes before it is right again.
     */
    public function test_the_first_that_does_not_fit_is_named_in_the_order_of_the_rule(): void
    {
        $right = $this->given;
        $events = $this->events;
        $wrong = [
            'it is not the event that is kept as the last' => ['tail' => new Seal(4, str_repeat('0', 64))],
            'the attempt shows remark “dry”' => ['rows' => self::rows(['remark' => 'dry'])],
            'the entry shows otherwise' => ['entry' => 'the entry shows otherwise'],
            'is not there' => ['files' => [$this->file => null]],
            'it is not the event that was sealed' => ['seal' => new Seal(3, $events[2]->hash)],
            'its seal: it is not signed' => ['signature' => 'it is not signed'],
            'a file is said to be removed' => ['removals' => [['file', str_repeat('b', 64)]]],
            'the chain of its cycle: cut' => ['cycle' => Verification::broken(2, 'cut')],
        ];
        $this->given = array_merge($right, ...array_values($wrong));
        foreach ($wrong as $why => $fields) {
            $found = $this->check();
            self::assertSame('broken', $found->state, $why);
            self::assertStringContainsString($why, (string) $found->why);
            $this->given = array_intersect_key($right, $fields) + $this->given;
        }
        self::assertSame('whole', $this->check()->state);
    }

    public function test_a_removal_counts_where_the_chain_of_the_cycle_tells_of_it_and_nowhere_else(): void
    {
        $note = $this->events[1];
        $digest = $note->event->digests()['to'];
        $without = new Event(self::A, 2, 'note_written', 'me', null, 1_800_000_000_000_000, null, [
            'from' => '',
            'to' => FreeText::REMOVED,
        ]);
        array_splice($this->events, 1, 1, [new StoredEvent($without, $note->bytes, $note->hash)]);
        $this->given['rows'] = self::rows(['remark' => FreeText::REMOVED]);
        $this->given['removals'] = [['text', '2'], ['file', $this->file]];
        $this->given['files'] = [$this->file => null];
        self::assertStringContainsString('nobody removed it', (string) $this->check()->why);

        $before = $this->chain;
        $head = ['attempt' => self::A, 'events' => 4, 'head' => $this->events[3]->hash];
        $this->chain = [
            ...$before,
            ...self::linked(self::C, 'cycle', [
                ['text_removed', [...$head, 'sequence' => 2, 'texts' => [$digest], 'reason' => 'A name'], []],
                ['evidence_removed', [...$head, 'sha256' => $this->file, 'reason' => 'A face'], []],
            ]),
        ];
        $found = $this->check();
        self::assertSame(['whole', ['event 2', $this->file]], [$found->state, $found->removed], (string) $found->why);
        $this->given['removals'] = [['text', '2']];
        self::assertStringContainsString('who removed something is not shown', (string) $this->check()->why);
        // Another attempt's removal is not this one's.
        $elsewhere = [...$head, 'attempt' => self::C, 'sequence' => 2, 'texts' => [$digest], 'reason' => 'A name'];
        $this->chain = [...$before, ...self::linked(self::C, 'cycle', [['text_removed', $elsewhere, []]])];
        self::assertStringContainsString('nobody removed it', (string) $this->check()->why);
    }

    public function test_the_chain_of_a_cycle_tells_of_every_attempt_and_of_no_other(): void
    {
        $whole = Verification::whole(2, $this->chain[1]->hash, []);
        $stored = [];
        foreach ($this->events as $e) {
            $stored[self::A][$e->event->sequence] = [$e->event->kind, $e->hash];
        }
        $found = fn(array $attempts): ?string => AttemptCheck::attemptsOf($this->chain, $attempts, self::NAMES, $whole)->why;
        self::assertNull($found($stored));
        self::assertStringContainsString('is not there any more', (string) $found([]));
        $rewritten = $stored;
        $rewritten[self::A][4] = ['finished', str_repeat('0', 64)];
        self::assertStringContainsString('is not as it was then', (string) $found($rewritten));
        $cut = $stored;
        unset($cut[self::A][4]);
        self::assertStringContainsString('is not as it was then', (string) $found($cut));
        $more = [...$stored, 'another' => [1 => ['started', str_repeat('1', 64)]]];
        self::assertStringContainsString('does not tell of event 1 of attempt another', (string) $found($more));
    }

    private function check(): Verification
    {
        return (new AttemptCheck(self::A, $this->events, $this->chain))->verify(...$this->given);
    }

    /**
     * @param  array<string, scalar|null>  $changed
     */
    private static function rows(array $changed = []): AttemptRows
    {
        $picture = [
            'sha256' => hash('sha256', 'a picture'),
            'link' => null,
            'name' => 'a.png',
            'caption' => '',
            'round' => null,
            'step' => null,
            'source' => 'file',
            'added_by' => 'me',
            'marked' => null,
            'markup_sha256' => null,
            'removed' => false,
        ];

        return new AttemptRows(
            $changed + [
                'number' => 1,
                'tester' => 'me',
                'snapshot_sha256' => str_repeat('a', 64),
                'takeover_word' => '',
                'remark' => 'The quay was wet',
                'state' => 'finished',
                'verdict' => 'pass',
                'roll_up' => 'not_run',
                'overruled' => true,
                'from_list' => false,
                'note' => 'As it was',
                'active_ms' => 0,
                'started_at' => 1_800_000_000,
                'ended_at' => 1_800_000_000,
            ],
            [],
            ['e' => $picture],
        );
    }

    /**
     * @param  'attempt'|'cycle'  $about
     * @param  list<array{string, array<string, mixed>, list<string>}>  $said kind, payload and files
     * @return list<StoredEvent>
     */
    private static function linked(string $id, string $about, array $said): array
    {
        $hash = Chain::start($id);
        $events = [];
        foreach ($said as $i => [$kind, $payload, $files]) {
            $event = (new Event($id, $i + 1, $kind, 'me', null, 1_800_000_000_000_000, null, $payload, $files, $about))->salted();
            $hash = Chain::next($hash, $event->bytes());
            $events[] = new StoredEvent($event, $event->bytes(), $hash);
        }

        return $events;
    }
}
