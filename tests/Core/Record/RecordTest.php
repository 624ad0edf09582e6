<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Record;

use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\FreeText;
use LucidStep\Core\Record\NotCanonical;
use LucidStep\Core\Record\Removed;
use LucidStep\Core\Record\Seal;
use LucidStep\Core\Record\StoredEvent;
use LucidStep\Core\Record\Verification;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use stdClass;

final class RecordTest extends TestCase
{
    private const ATTEMPT = '0190f0aa-0000-7000-8000-000000000001';

    public function test_same_content_same_bytes(): void
    {
        $one = ['b' => [1, true, null], 'a' => ['z' => 'é "q" \\ / ' . "\n\u{2028}", 'a0' => -5, 'a_b' => []]];
        $two = ['a' => ['a_b' => [], 'a0' => -5, 'z' => 'é "q" \\ / ' . "\n\u{2028}"], 'b' => [1, true, null]];
        self::assertSame(
            '{"a":{"a0":-5,"a_b":[],"z":"é \"q\" \\\\ / \n' . "\u{2028}" . '"},"b":[1,true,null]}',
            CanonicalJson::encode($one),
        );
        self::assertSame(CanonicalJson::encode($one), CanonicalJson::encode($two));
        self::assertSame('{"a":{},"b":[]}', CanonicalJson::encode(['b' => [], 'a' => new stdClass()]));
        self::assertSame('[9007199254740991,-9007199254740991]', CanonicalJson::encode([2 ** 53 - 1, -(2 ** 53 - 1)]));
    }

    /**
     * @return iterable<string, array{mixed}>
     */
    public static function notCanonical(): iterable
    {
        yield 'a fraction' => [['a' => 1.5]];
        yield 'a large integer' => [['a' => 2 ** 53]];
        yield 'zero byte' => [['a' => "x\0y"]];
        yield 'not UTF-8' => [['a' => "\xC3\x28"]];
        yield 'a capital key' => [['Key' => 1]];
        yield 'a key with a line end' => [["key\n" => 1]];
        yield 'a number as key' => [[3 => 'x']];
        yield 'an object' => [['a' => new \ArrayObject()]];
    }

    #[DataProvider('notCanonical')]
    public function test_what_has_no_canonical_form_is_refused(mixed $value): void
    {
        $this->expectException(NotCanonical::class);
        CanonicalJson::encode($value);
    }

    public function test_the_chain_begins_with_the_attempt(): void
    {
        self::assertSame(hash('sha256', "lucid-step/2\n" . self::ATTEMPT), Chain::start(self::ATTEMPT));
        self::assertSame(
            hash('sha256', Chain::start(self::ATTEMPT) . "\n" . hash('sha256', '{}')),
            Chain::next(Chain::start(self::ATTEMPT), '{}'),
        );
    }

    public function test_a_whole_record_an_open_one_and_one_with_a_later_act(): void
    {
        $events = self::chain(5);
        $whole = Chain::verify(self::ATTEMPT, $events, new Seal(5, $events[4]->hash));
        self::assertSame(['whole', $events[4]->hash], [$whole->state, $whole->head]);
        self::assertNull(Chain::verifySeal($events, null), 'open');
        self::assertStringContainsString('no event ends it', (string) Chain::verifySeal($events, new Seal(5, $events[4]->hash))?->why);
    }

    /**
     * @return iterable<string, array{list<string>, ?string}>
     */
    public static function ends(): iterable
    {
        yield 'finished' => [['started', 'finished'], null];
        yield 'abandoned' => [['started', 'abandoned'], null];
        foreach (
            ['time_corrected', 'evidence_redacted', 'retest_asked', 'defect_linked', 'late_act_accepted', 'late verdict_given']
            as $kind
        ) {
            yield "{$kind} afterwards" => [['started', 'finished', $kind], null];
        }
        foreach (['verdict_given', 'note_written', 'evidence_added', 'evidence_captioned', 'taken_over', 'finished', 'started'] as $kind) {
            yield "{$kind} afterwards, in time" => [['started', 'finished', 'time_corrected', $kind], "{$kind} cannot follow the seal"];
        }
    }

    /**
     * @param  list<string>  $kinds
     */
    #[DataProvider('ends')]
    public function test_what_may_follow_a_seal(array $kinds, ?string $why): void
    {
        $events = self::chain(count($kinds), 'pass', $kinds);
        $seal = new Seal(2, $events[1]->hash);
        self::assertSame($why, Chain::verifySeal($events, $seal)?->why);
        self::assertStringContainsString('the seal is not there', (string) Chain::verifySeal(array_slice($events, 0, 2), null)?->why);
        foreach ([new Seal(1, $events[0]->hash), new Seal(2, $events[0]->hash), new Seal(3, $events[1]->hash)] as $other) {
            self::assertStringContainsString(
                'not the event that was sealed',
                (string) Chain::verifySeal(array_slice($events, 0, 2), $other)?->why,
            );
        }
    }

    /**
     * Any change of any stored field of any event is found, and the first event that does not fit is named.
     */
    public function test_every_change_is_found_and_named(): void
    {
        $events = self::chain(4);
        $seal = new Seal(4, $events[3]->hash);
        foreach ($events as $i => $stored) {
            $e = $stored->event;
            $changed = [
                new StoredEvent($e, str_replace('pass', 'fail', $stored->bytes), $stored->hash),
                new StoredEvent($e, $stored->bytes, strrev($stored->hash)),
                new StoredEvent($e, $stored->bytes . ' ', $stored->hash),
                new StoredEvent(self::event($i + 1, ['to' => 'fail']), $stored->bytes, $stored->hash),
                new StoredEvent(
                    new Event(
                        self::ATTEMPT,
                        $i + 1,
                        $e->kind,
                        'somebody else',
                        $e->deviceTime,
                        $e->serverTime,
                        $e->counter,
                        $e->payload,
                        $e->evidence,
                    ),
                    $stored->bytes,
                    $stored->hash,
                ),
                new StoredEvent(
                    new Event(
                        self::ATTEMPT,
                        $i + 1,
                        $e->kind,
                        $e->actor,
                        $e->deviceTime,
                        $e->serverTime + 1,
                        $e->counter,
                        $e->payload,
                        $e->evidence,
                    ),
                    $stored->bytes,
                    $stored->hash,
                ),
                new StoredEvent(
                    new Event(self::ATTEMPT, $i + 1, $e->kind, $e->actor, $e->deviceTime, $e->serverTime, $e->counter, $e->payload, []),
                    $stored->bytes,
                    $stored->hash,
                ),
            ];
            foreach ($changed as $n => $one) {
                $with = $events;
                $with[$i] = $one;
                $found = Chain::verify(self::ATTEMPT, array_values($with), $seal);
                self::assertSame(['broken', $i + 1], [$found->state, $found->at], "change {$n} of event " . ($i + 1));
            }
            $without = $events;
            array_splice($without, $i, 1);
            $found = Chain::verify(self::ATTEMPT, $without, $seal);
            self::assertSame(['broken', $i + 1], [$found->state, $found->at]);
        }
        $swapped = [$events[1], $events[0], $events[2], $events[3]];
        self::assertSame(1, Chain::verify(self::ATTEMPT, $swapped, $seal)->at);
    }

    public function test_a_rewritten_chain_does_not_fit_the_seal(): void
    {
        $events = self::chain(4);
        $seal = new Seal(4, $events[3]->hash);
        $rewritten = self::chain(4, 'fail');
        self::assertSame('broken', Chain::verify(self::ATTEMPT, $rewritten, $seal)->state);
        self::assertStringContainsString(
            'tail is missing: 3 of 4',
            (string) Chain::verify(self::ATTEMPT, array_slice($events, 0, 3), $seal)->why,
        );
    }

    public function test_files_are_checked_and_a_removed_one_is_not_a_broken_one(): void
    {
        $events = self::chain(2);
        [$file, $other] = [$events[0]->event->evidence[0], $events[1]->event->evidence[0]];
        $found = static fn(?string $is): ?string => Chain::verifyFiles($events, [$file => $is, $other => $other], new Removed())?->why;
        self::assertNull($found($file));
        self::assertStringContainsString('other content', (string) $found(hash('sha256', 'other')));
        self::assertStringContainsString('not there', (string) $found(null));
        self::assertSame(2, Chain::verifyFiles($events, [$file => $file], new Removed())?->at, 'nobody looked for it');
        self::assertNull(Chain::verifyFiles($events, [$other => $other], new Removed([$file => true])));
    }

    public function test_no_word_of_a_person_stands_in_the_bytes_and_each_is_proven_by_its_salt(): void
    {
        $words = ['happened' => 'Isla Fenn paid twice', 'rows' => [['word' => 'GEHEIM-4711'], ['word' => 'x']], 'to' => 'fail'];
        $event = self::event(1, [...$words, 'tester' => self::ATTEMPT, 'media_type' => 'image/png', 'waits_on' => ''])->salted();
        self::assertSame(['happened', 'rows.0.word', 'rows.1.word'], array_keys($event->salts));
        self::assertCount(3, array_unique($event->salts));
        foreach (['Isla', 'GEHEIM', '"x"', ...array_values($event->salts)] as $secret) {
            self::assertStringNotContainsString($secret, $event->bytes());
        }
        foreach (['"to":"fail"', self::ATTEMPT, 'image/png', hash('sha256', "{$event->salts['rows.1.word']}\nx")] as $plain) {
            self::assertStringContainsString($plain, $event->bytes());
        }
        self::assertNotSame($event->bytes(), self::event(1, $event->payload)->salted()->bytes(), 'the same words twice look different');
    }

    /**
     * A text that is removed leaves its verdict proven; one that is changed, swapped, emptied or made to vanish is named.
     */
    public function test_texts_are_proven_removed_or_named(): void
    {
        $event = self::event(1, ['to' => 'fail', 'happened' => 'It sank', 'reason' => 'It sank'])->salted();
        $hash = Chain::next(Chain::start(self::ATTEMPT), $event->bytes());
        $check = static fn(array $payload, array $salts, Removed $removed = new Removed()): Verification => Chain::verify(
            self::ATTEMPT,
            [new StoredEvent(self::event(1, $payload, $salts), $event->bytes(), $hash)],
            new Seal(1, $hash),
            $removed,
        );
        $gone = new Removed([], [$event->digests()['happened'] => true]);
        $without = ['happened' => FreeText::REMOVED] + $event->payload;
        $saltless = array_diff_key($event->salts, ['happened' => 0]);
        self::assertSame('whole', $check($event->payload, $event->salts)->state);
        $removed = $check($without, $saltless, $gone);
        self::assertSame(['whole', ['event 1']], [$removed->state, $removed->removed]);
        self::assertSame('broken', $check(['to' => 'pass'] + $without, $saltless, $gone)->state, 'a verdict changed behind a removal');
        self::assertStringContainsString('nobody removed it', (string) $check($without, $saltless)->why);
        self::assertStringContainsString('nobody removed it', (string) $check($event->payload, [], $gone)->why, 'only one was removed');
        foreach (
            [
                [['happened' => 'It swam'] + $event->payload, $event->salts],
                [['happened' => ''] + $event->payload, $event->salts],
                [array_diff_key($event->payload, ['happened' => 0]), $event->salts],
                [$event->payload, ['happened' => $event->salts['reason'], 'reason' => $event->salts['happened']]],
                [['happened' => 'pass'] + $event->payload, $event->salts],
            ]
            as $n => [$payload, $salts]
        ) {
            self::assertSame('broken', $check($payload, $salts)->state, "change {$n}");
        }
        self::assertSame('broken', $check(['note' => 'One more'] + $event->payload, $event->salts)->state);
    }

    public function test_an_empty_payload_is_an_empty_object(): void
    {
        self::assertStringContainsString('"payload":{}', (new Event(self::ATTEMPT, 1, 'abandoned', 'a', null, 1, null))->bytes());
    }

    /**
     * @param  list<string>  $kinds of the events; with "late " before it, one that arrived late
     *
     * @return list<StoredEvent>
     */
    private static function chain(int $length, string $to = 'pass', array $kinds = []): array
    {
        $hash = Chain::start(self::ATTEMPT);
        $events = [];
        for ($i = 1; $i <= $length; $i++) {
            $kind = $kinds[$i - 1] ?? 'verdict_given';
            $late = str_starts_with($kind, 'late ');
            $payload = ['to' => $to, ...$late ? ['arrived_late' => true] : []];
            $event = self::event($i, $payload, [], $late ? substr($kind, 5) : $kind);
            $bytes = $event->bytes();
            $hash = Chain::next($hash, $bytes);
            $events[] = new StoredEvent($event, $bytes, $hash);
        }

        return $events;
    }

    /**
     * @param  array<string, mixed>  $payload
     * @param  array<string, string>  $salts
     */
    private static function event(int $sequence, array $payload, array $salts = [], string $kind = 'verdict_given'): Event
    {
        return new Event(
            self::ATTEMPT,
            $sequence,
            $kind,
            'tester',
            1_800_000_000_000_000 + $sequence,
            1_800_000_000_500_000 + $sequence,
            $sequence,
            $payload,
            [hash('sha256', "picture {$sequence}")],
            'attempt',
            $salts,
        );
    }
}
