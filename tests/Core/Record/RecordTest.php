<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Record;

use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\NotCanonical;
use LucidStep\Core\Record\Seal;
use LucidStep\Core\Record\StoredEvent;
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
        self::assertSame(hash('sha256', "lucid-step/1\n" . self::ATTEMPT), Chain::start(self::ATTEMPT));
        self::assertSame(hash('sha256', Chain::start(self::ATTEMPT) . "\n{}"), Chain::next(Chain::start(self::ATTEMPT), '{}'));
    }

    public function test_a_whole_record_an_open_one_and_one_with_a_later_act(): void
    {
        $events = self::chain(5);
        self::assertSame('open', Chain::verify(self::ATTEMPT, $events, null)->state);
        self::assertSame('whole', Chain::verify(self::ATTEMPT, $events, new Seal(5, $events[4]->hash))->state);
        $later = Chain::verify(self::ATTEMPT, $events, new Seal(3, $events[2]->hash));
        self::assertSame(['whole', $events[4]->hash], [$later->state, $later->head]);
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
        $seal = new Seal(2, $events[1]->hash);
        $file = $events[0]->event->evidence[0];
        self::assertSame('whole', Chain::verify(self::ATTEMPT, $events, $seal, [$file => $file])->state);
        self::assertStringContainsString(
            'other content',
            (string) Chain::verify(self::ATTEMPT, $events, $seal, [$file => hash('sha256', 'other')])->why,
        );
        self::assertStringContainsString('not there', (string) Chain::verify(self::ATTEMPT, $events, $seal, [$file => null])->why);
        $removed = Chain::verify(self::ATTEMPT, $events, $seal, [$file => null], [$file => true]);
        self::assertSame('whole', $removed->state);
        self::assertContains($file, $removed->removed);
    }

    public function test_an_empty_payload_is_an_empty_object(): void
    {
        self::assertStringContainsString('"payload":{}', (new Event(self::ATTEMPT, 1, 'abandoned', 'a', null, 1, null))->bytes());
    }

    /**
     * @return list<StoredEvent>
     */
    private static function chain(int $length, string $to = 'pass'): array
    {
        $hash = Chain::start(self::ATTEMPT);
        $events = [];
        for ($i = 1; $i <= $length; $i++) {
            $event = self::event($i, ['to' => $to]);
            $bytes = $event->bytes();
            $hash = Chain::next($hash, $bytes);
            $events[] = new StoredEvent($event, $bytes, $hash);
        }

        return $events;
    }

    /**
     * @param  array<string, mixed>  $payload
     */
    private static function event(int $sequence, array $payload): Event
    {
        return new Event(
            self::ATTEMPT,
            $sequence,
            'verdict_given',
            'tester',
            1_800_000_000_000_000 + $sequence,
            1_800_000_000_500_000 + $sequence,
            $sequence,
            $payload,
            [hash('sha256', "picture {$sequence}")],
        );
    }
}
