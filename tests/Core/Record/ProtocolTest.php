<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Record;

use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\Protocol;
use LucidStep\Core\Record\StoredEvent;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * What is written down of an attempt, from its events and its case alone.
 */
final class ProtocolTest extends TestCase
{
    private const CASE = [
        'key' => 'SKR-C7',
        'version' => 3,
        'title' => 'Book a berth <b>at once</b>',
        'preconditions' => "Signed in\nas a guest",
        'steps' => [
            ['action' => 'Open {{Route}}', 'data' => '{{ pin }}', 'expected' => 'It says {{Route}}'],
            ['action' => 'Pay', 'data' => '', 'expected' => 'Paid'],
        ],
        'rounds' => [
            ['values' => [['Route', '`North`'], ['pin', '••••']], 'repeats' => null],
            ['values' => [['Route', ''], ['pin', '']], 'repeats' => null],
        ],
    ];

    public function test_it_says_what_was_done_in_which_round_and_what_it_came_to(): void
    {
        $protocol = $this->write([
            ['started', ['number' => 2, 'tester' => 'me', 'build' => 'b', 'configuration' => 'c', 'environment' => 'A phone']],
            ['verdict_given', ['round' => 1, 'step' => 1, 'to' => 'pass', 'active_ms' => 4000]],
            [
                'verdict_given',
                ['round' => 1, 'step' => 2, 'to' => 'fail', 'active_ms' => 3000, 'happened' => "No <script>alert(1)</script>\nand a < b"],
            ],
            ['tried', ['round' => 1, 'step' => 2, 'tries' => 5, 'tries_failed' => 2]],
            ['evidence_added', ['evidence' => 'e', 'name' => 'a.png', 'caption' => 'The stern', 'round' => 1, 'step' => 2], ['abc']],
            ['evidence_added', ['evidence' => 'f', 'name' => 'all.txt', 'caption' => '', 'round' => null, 'step' => null], ['def']],
            ['evidence_added', ['evidence' => 'g', 'name' => 'off.txt', 'caption' => '', 'round' => 1, 'step' => 1], ['off']],
            ['evidence_removed', ['evidence' => 'g']],
            ['round_skipped', ['round' => 2, 'reason' => 'no time']],
            ['round_repeated', ['round' => 1]],
            ['defect_linked', ['defect' => 'd', 'key' => 'SKR-D9', 'round' => 1, 'step' => 2]],
            ['taken_over', ['from' => 'me', 'to' => 'you', 'word' => 'She is ill']],
            [
                'finished',
                [
                    'verdict' => 'pass',
                    'roll_up' => 'not_run',
                    'overruled' => true,
                    'note' => 'Once more',
                    'active_ms' => 7000,
                    'corrected_ms' => 60_000,
                ],
            ],
        ]);
        $expected = <<<'MD'
        # SKR-C7 Book a berth &lt;b>at once&lt;/b>

        - Attempt 2 in Harbour (SKR-R3), version 3 of the case
        - By Other, 2027-01-15 08:00:01 to 2027-01-15 08:00:13 (UTC)
        - Verdict: pass (overruled; the steps say not run)
        - Time: 60 s, corrected from 7 s
        - On: Quay tablet, build 4.2, A phone
        - Note: Once more
        - Before it began: Signed in
          as a guest

        ## Round 1: fail
        - Route: `North`
        - pin: ••••

        1. **pass** Open `` `North` ``
           - Data: ••••
           - Expected: It says `` `North` ``

        2. **fail** Pay
           - Expected: Paid
           - Happened: No &lt;script>alert(1)&lt;/script>
             and a < b
           - Tries: failed 2 of 5
           - Evidence: The stern (a.png), SHA-256 abc, taken out

        ## Round 2: left out (no time)

        1. **not run** Open `(empty)`
           - Data: (empty)
           - Expected: It says `(empty)`

        2. **not run** Pay
           - Expected: Paid

        ## Round 3: not run, once more what round 1 walked
        - Route: `North`
        - pin: ••••

        1. **not run** Open `` `North` ``
           - Data: ••••
           - Expected: It says `` `North` ``

        2. **not run** Pay
           - Expected: Paid

        ## Evidence of the attempt

        - Evidence: all.txt, SHA-256 def
        - Defect SKR-D9: The berth is lost

        MD;
        self::assertSame($expected, $protocol);
    }

    /**
     * @return iterable<string, array{string}>
     */
    public static function words(): iterable
    {
        foreach (['<img src=x onerror=a>', '</li><script>', '<!-- x', '<?php', "a\n<svg/onload=b>", '&lt;b>', '<B', '<a'] as $words) {
            yield $words => [$words];
        }
    }

    /**
     * Wherever people write, nothing of it can be read as HTML.
     */
    #[DataProvider('words')]
    public function test_no_text_becomes_a_tag(string $words): void
    {
        $protocol = Protocol::write(
            [
                'key' => 'K',
                'version' => 1,
                'title' => $words,
                'preconditions' => $words,
                'steps' => [['action' => "{$words} {{a}}", 'data' => $words, 'expected' => $words]],
                'rounds' => [['values' => [[$words, $words], ['a', $words]], 'repeats' => null]],
            ],
            $this->events([
                ['started', ['number' => 1, 'tester' => 'me', 'environment' => $words, 'word' => $words, 'parallel_reason' => $words]],
                ['note_written', ['to' => $words]],
                ['note_written', ['round' => 1, 'step' => 1, 'to' => $words]],
                [
                    'verdict_given',
                    [
                        'round' => 1,
                        'step' => 1,
                        'to' => 'fail',
                        'active_ms' => 1,
                        'happened' => $words,
                        'reason' => $words,
                        'waits_on' => $words,
                    ],
                ],
                ['evidence_added', ['evidence' => 'e', 'name' => $words, 'caption' => $words, 'round' => 1, 'step' => 1, 'link' => $words]],
                ['defect_linked', ['defect' => 'd', 'key' => 'D']],
                ['round_skipped', ['round' => 1, 'reason' => $words]],
            ]),
            'cycle',
            ['cycle' => $words, 'me' => $words, 'd' => $words],
        );
        self::assertDoesNotMatchRegularExpression('/<[a-z\/!?]/i', $protocol);
        self::assertGreaterThan(12, substr_count($protocol, '&lt;'));
    }

    /**
     * What is read from the bytes and the texts beside them writes the same; a text that was taken out is said to be.
     */
    public function test_it_is_the_same_from_stored_bytes(): void
    {
        $events = $this->events([
            ['started', ['number' => 1, 'tester' => 'me', 'build' => 'b', 'environment' => '', 'list' => [], 'map' => new \stdClass()]],
            ['verdict_given', ['round' => 1, 'step' => 1, 'to' => 'fail', 'active_ms' => 1, 'happened' => 'It sank']],
            ['note_written', ['from' => '', 'to' => 'A card number', 'rows' => [['word' => 'x'], ['word' => 'y']]]],
        ]);
        $stored = array_map(static function (Event $e): StoredEvent {
            $salted = $e->salted();
            $bytes = $salted->bytes();

            return new StoredEvent($salted, $bytes, Chain::next('0', $bytes));
        }, $events);
        $read = array_map(static fn(StoredEvent $s): StoredEvent => StoredEvent::read($s->bytes, $s->hash, $s->texts()), $stored);
        foreach ($stored as $i => $one) {
            self::assertEquals($one->texts(), $read[$i]->texts());
            self::assertEquals($one->event->digests(), $read[$i]->event->digests());
        }
        $write = static function (StoredEvent ...$of): string {
            return Protocol::write(self::CASE, array_values(array_map(static fn(StoredEvent $s): Event => $s->event, $of)), 'cycle', []);
        };
        self::assertSame($write(...$stored), $write(...$read));
        $read[2] = StoredEvent::read($stored[2]->bytes, $stored[2]->hash, []);
        self::assertSame(str_replace('A card number', '(removed)', $write(...$stored)), $write(...$read));
    }

    /**
     * A case of before its rounds stood in it has as many as its events tell of.
     */
    public function test_without_rounds_in_the_case_there_are_those_that_events_tell_of(): void
    {
        $events = $this->events([
            ['started', ['number' => 1, 'tester' => 'me']],
            ['verdict_given', ['round' => 2, 'step' => 1, 'to' => 'pass', 'active_ms' => 1]],
            ['round_repeated', ['round' => 2]],
            ['verdict_given', ['round' => 3, 'step' => 1, 'to' => 'fail', 'active_ms' => 1]],
        ]);
        $protocol = Protocol::write(['rounds' => []] + self::CASE, $events, 'cycle', []);
        preg_match_all('/^## .*$/m', $protocol, $rounds);
        self::assertSame(['## Round 1: not run', '## Round 2: in progress', '## Round 3: fail, once more what round 2 walked'], $rounds[0]);
    }

    /**
     * @param  list<array{string, array<string, mixed>, 2?: list<string>}>  $acts
     */
    private function write(array $acts): string
    {
        $cycle = [
            new Event('cycle', 1, 'evidence_removed', 'me', null, 0, null, ['attempt' => 'attempt', 'sha256' => 'abc'], [], 'cycle'),
            new Event('cycle', 2, 'evidence_removed', 'me', null, 0, null, ['attempt' => 'other', 'sha256' => 'def'], [], 'cycle'),
        ];

        return Protocol::write(
            self::CASE,
            $this->events($acts),
            'cycle',
            [
                'cycle' => 'Harbour (SKR-R3)',
                'me' => 'Me',
                'you' => 'Other',
                'b' => '4.2',
                'c' => 'Quay tablet',
                'd' => 'The berth is lost',
            ],
            Protocol::gone($cycle, 'attempt'),
        );
    }

    /**
     * @param  list<array{string, array<string, mixed>, 2?: list<string>}>  $acts a second apart
     *
     * @return list<Event>
     */
    private function events(array $acts): array
    {
        $events = [];
        foreach ($acts as $i => $act) {
            $time = (1_800_000_001 + $i) * 1_000_000;
            $events[] = new Event('attempt', $i + 1, $act[0], 'me', null, $time, null, $act[1], $act[2] ?? []);
        }

        return $events;
    }
}
