<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Defects;

use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Defects\Tracker\CallState;
use LucidStep\Core\Defects\Tracker\Outbox;
use LucidStep\Core\Defects\Tracker\OutboxCall;
use LucidStep\Core\Defects\Tracker\Outcome;
use LucidStep\Core\Defects\Tracker\OutsideAddress;
use LucidStep\Core\Defects\Tracker\OutsideFacts;
use LucidStep\Core\Defects\Tracker\OutsideNews;
use LucidStep\Core\Defects\Tracker\Standing;
use LucidStep\Core\Defects\Tracker\TrackerMapping;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class TrackerTest extends TestCase
{
    public function test_what_may_pass_is_tried_again_and_everything_else_is_refused(): void
    {
        foreach ([null, 408, 429, 500, 503] as $again) {
            self::assertSame(Outcome::Again, Outcome::of($again));
        }
        foreach ([301, 302, 400, 401, 403, 404, 409, 413, 422] as $refused) {
            self::assertSame(Outcome::Refused, Outcome::of($refused));
        }
        self::assertSame([Outcome::Sent, Outcome::Sent], [Outcome::of(200), Outcome::of(201)]);
    }

    public function test_delays_double_up_to_an_hour_with_some_jitter(): void
    {
        self::assertSame([60, 120, 240, 480], array_map(static fn(int $n): int => Outbox::delay($n, 0.5), [1, 2, 3, 4]));
        for ($tries = 1; $tries < 40; $tries++) {
            foreach ([0.0, 0.3, 1.0] as $random) {
                $delay = Outbox::delay($tries, $random);
                self::assertGreaterThanOrEqual(48, $delay);
                self::assertLessThanOrEqual(3600, $delay);
            }
        }
    }

    /**
     * Two hundred acts on some defects, whatever fails on the way: each arrives once, and those of a defect in their order.
     */
    public function test_property_every_act_arrives_once_and_in_order_under_random_failures(): void
    {
        mt_srand(200);
        for ($turn = 0; $turn < 20; $turn++) {
            $calls = [];
            for ($n = 1; $n <= 200; $n++) {
                $calls["c{$n}"] = new OutboxCall("c{$n}", 'd' . mt_rand(1, 12), $n);
            }
            $kept = $arrived = [];
            $open = static fn(array $of): array => array_filter($of, static fn(OutboxCall $c): bool => CallState::Sent !== $c->state);
            for ($now = 0; [] !== $open($calls); ) {
                $call = Outbox::next(array_values($calls), $now);
                if (null === $call) {
                    $now += 60;
                    // A refused one is mended and sent again by somebody.
                    $mended = static fn(OutboxCall $c): OutboxCall => new OutboxCall($c->id, $c->defect, $c->number);
                    $calls = array_map(static fn(OutboxCall $c): OutboxCall => CallState::Refused === $c->state ? $mended($c) : $c, $calls);

                    continue;
                }
                // The tracker may be down, store it and lose the answer, or refuse; a key that it knows it answers as before.
                $luck = mt_rand(0, 9);
                $stores = $luck < 6;
                if ($stores && !isset($kept[$call->id])) {
                    $kept[$call->id] = true;
                    $arrived[$call->defect][] = $call->number;
                }
                $status = match (true) {
                    $luck < 4 => 201,
                    $luck < 6 => null,
                    $luck < 9 => 503,
                    default => 422,
                };
                $calls[$call->id] = $call->after(Outcome::of($status), $now, mt_rand(0, 100) / 100);
            }
            self::assertCount(200, $kept);
            self::assertSame(200, array_sum(array_map(count(...), $arrived)), 'once each');
            foreach ($arrived as $numbers) {
                $sorted = $numbers;
                sort($sorted);
                self::assertSame($sorted, $numbers, 'in order');
            }
        }
    }

    public function test_what_waits_before_it_holds_a_call_and_what_was_left_out_does_not(): void
    {
        $one = new OutboxCall('a', 'd1', 1, CallState::Refused);
        $two = new OutboxCall('b', 'd1', 2);
        $other = new OutboxCall('c', 'd2', 3, nextAt: 100);
        self::assertNull(Outbox::next([$two, $one, $other], 50));
        self::assertSame('c', Outbox::next([$two, $one, $other], 100)?->id);
        self::assertSame('b', Outbox::next([$two, new OutboxCall('a', 'd1', 1, CallState::LeftOut)], 0)?->id);
    }

    public function test_state_follows_the_tracker_and_echoes_and_old_news_change_nothing(): void
    {
        $mapping = TrackerMapping::fromArray([]);
        $of = static fn(
            DefectState $ours,
            string $theirs,
            string $known,
            string $at = '',
            string $knownAt = '',
            string $with = '',
        ): OutsideNews => OutsideNews::of(
            $mapping,
            $ours,
            new OutsideFacts($theirs, $with, $at),
            new OutsideFacts($known, 'ines', $knownAt),
        );
        self::assertSame(DefectState::InWork, $of(DefectState::New, 'doing', 'open')->to);
        self::assertFalse($of(DefectState::New, 'open', 'open')->isNew, 'the same again');
        self::assertNull($of(DefectState::Fixed, 'done', 'doing')->to, 'what we said ourselves');
        self::assertTrue($of(DefectState::Fixed, 'done', 'doing')->isNew);
        self::assertFalse($of(DefectState::New, 'doing', 'open', '2026-11-30T10:00:00+01:00', '2026-11-30T09:30:00Z')->isNew, 'overtaken');
        self::assertSame(DefectState::InWork, $of(DefectState::New, 'doing', 'open', '2026-11-30T10:00:00Z', '2026-11-30T09:30:00Z')->to);
        $passed = $of(DefectState::New, 'open', 'open', '2026-11-30T10:00:00Z', '2026-11-30T10:30:00Z', 'omar');
        self::assertSame([null, false], [$passed->assignee, $passed->isNew], 'an assignee that was overtaken too');
        self::assertSame('omar', $of(DefectState::New, 'open', 'open', with: 'omar')->assignee);
        self::assertFalse($of(DefectState::New, 'open', 'open', with: 'ines')->isNew);
        $strange = $of(DefectState::New, 'parked', 'open');
        self::assertSame([null, true], [$strange->to, $strange->isNew], 'shown, and nothing else');
    }

    public function test_what_was_refused_is_said_before_what_waits_and_before_what_was_told(): void
    {
        self::assertSame(Standing::Refused, Standing::of([CallState::Waiting, CallState::Refused], true, true));
        self::assertSame(Standing::Waiting, Standing::of([CallState::Waiting], false, false));
        self::assertSame(Standing::Here, Standing::of([], false, false));
        self::assertSame([Standing::Changed, Standing::Sent], [Standing::of([], true, true), Standing::of([], true, false)]);
    }

    public function test_addresses_fields_and_answers_go_by_the_mapping(): void
    {
        $mapping = TrackerMapping::fromArray([
            'paths' => ['file' => 'PUT /v2/new', 'comment' => 'POST /x/{key}/talk', 'none' => 'x'],
            'answers' => ['key' => 'data.0.no', 'list' => 'all'],
            'back' => ['Geschlossen' => 'closed'],
        ]);
        self::assertSame(['PUT', '/v2/new'], $mapping->request('file'));
        self::assertSame(['POST', '/x/a%2Fb%3F/talk'], $mapping->request('comment', ['key' => 'a/b?']));
        self::assertSame('7', $mapping->read('key', ['data' => [['no' => 7]]]));
        self::assertSame('', $mapping->read('key', ['data' => 'x']));
        self::assertSame([1], $mapping->read('list', ['all' => [1]]));
        self::assertSame(DefectState::Closed, $mapping->ours('Geschlossen'));
        self::assertNull($mapping->ours('open'));
        self::assertArrayNotHasKey('none', $mapping->paths);
        self::assertEquals($mapping, TrackerMapping::fromArray($mapping->toArray()));
    }

    #[DataProvider('hosts')]
    public function test_only_what_the_installation_allows_is_called(string $host, string $ip, bool $plain, bool $named): void
    {
        self::assertSame($plain, OutsideAddress::isAllowed($host, [$ip], []));
        self::assertSame($named, OutsideAddress::isAllowed($host, [$ip], [strtoupper($host)]));
        self::assertFalse(OutsideAddress::isAllowed($host, [$ip, '169.254.169.254'], [$host]), 'every one that it stands for');
    }

    /**
     * @return iterable<array{string, string, bool, bool}>
     */
    public static function hosts(): iterable
    {
        yield ['tracker.example:443', '93.184.216.34', true, true];
        yield ['127.0.0.1:8089', '127.0.0.1', false, true];
        yield ['inside.example:80', '10.1.2.3', false, true];
        yield ['inside.example:80', '::ffff:10.1.2.3', false, true];
        yield ['shared.example:80', '100.64.1.1', false, true];
        yield ['many.example:80', '224.0.0.1', false, true];
        yield ['meta.example:80', '169.254.169.254', false, false];
        yield ['meta.example:80', '::ffff:169.254.169.254', false, false];
        yield ['meta.example:80', 'fd00:ec2::254', false, false];
        yield ['link.example:80', 'fe80::1', false, false];
        yield ['six.example:443', '2606:2800:220:1::1', true, true];
        yield ['none.example:80', 'nonsense', false, false];
    }

    public function test_an_address_is_whole_and_holds_no_secret(): void
    {
        self::assertSame('tracker.example:443', OutsideAddress::hostOf('https://Tracker.example/api'));
        self::assertSame('127.0.0.1:8089', OutsideAddress::hostOf('http://127.0.0.1:8089'));
        foreach (
            [
                'tracker.example',
                'ftp://x.example',
                'https://a:b@x.example',
                'https://x.example/?a=1',
                "https://x.example/\n",
                'https://x\\y',
            ]
            as $bad
        ) {
            try {
                OutsideAddress::hostOf($bad);
                self::fail($bad);
            } catch (\DomainException $e) {
                self::assertNotSame('', $e->getMessage());
            }
        }
    }
}
