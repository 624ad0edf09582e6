<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Sessions;

use LucidStep\Core\Sessions\AreaFigures;
use LucidStep\Core\Sessions\CharterState;
use LucidStep\Core\Sessions\ExploredSession;
use LucidStep\Core\Sessions\Focus;
use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\PoissonRate;
use LucidStep\Core\Sessions\Sentence;
use LucidStep\Core\Sessions\SessionClock;
use LucidStep\Core\Sessions\SessionLine;
use LucidStep\Core\Sessions\SessionState;
use LucidStep\Core\Sessions\TimeShares;
use LucidStep\Core\Sessions\Work;
use PHPUnit\Framework\TestCase;

/**
 * The time of a session and what it went to, sentences, and figures over many.
 */
final class TimeTest extends TestCase
{
    public function test_pauses_are_left_out_and_a_switch_counts_from_when_it_is_pressed(): void
    {
        $clock = (new SessionClock([]))->started(1_000)->stopped(41_000)->started(100_000);
        self::assertSame([0, 0, 40_000, 40_000, 45_000], array_map($clock->at(...), [0, 1_000, 41_000, 90_000, 105_000]));
        self::assertTrue($clock->isRunning());
        $ended = $clock->stopped(120_000);
        self::assertSame(60_000, $ended->at(999_999));
        $shares = TimeShares::of($ended, [[21_000, Focus::Opportunity]], 120_000);
        self::assertSame(['charter' => 20_000, 'opportunity' => 40_000], $shares->focus);
        self::assertSame(['testing' => 60_000, 'investigating' => 0, 'setting_up' => 0], $shares->work);
        // Pressed in the pause, it counts from when the clock goes on.
        $paused = TimeShares::of($ended, [[70_000, Work::Investigating]], 120_000);
        self::assertSame(['testing' => 40_000, 'investigating' => 20_000, 'setting_up' => 0], $paused->work);
    }

    public function test_the_clock_shows_what_the_page_shows(): void
    {
        $examples = json_decode((string) file_get_contents(__DIR__ . '/../../shared/session-clocks.json'), true, 8, \JSON_THROW_ON_ERROR);
        foreach ($examples as ['says' => $says, 'runs' => $runs, 'at' => $at, 'shows' => $shows]) {
            self::assertSame($shows, (new SessionClock($runs))->at($at), $says);
        }
    }

    public function test_a_charter_stands_where_its_last_session_does_and_what_waits_is_ordered_by_how_urgent_it_is(): void
    {
        self::assertSame(CharterState::Waiting, CharterState::of(null, false));
        self::assertSame(CharterState::Running, CharterState::of(SessionState::Paused, true), 'what runs is seen');
        self::assertSame(CharterState::Dropped, CharterState::of(SessionState::Debriefed, true));
        self::assertSame(
            [CharterState::Done, CharterState::Debriefed],
            [CharterState::of(SessionState::Stopped, false), CharterState::of(SessionState::Debriefed, false)],
        );
        $ranks = [
            CharterState::Running->rank('low'),
            CharterState::Waiting->rank('critical'),
            CharterState::Waiting->rank('low'),
            CharterState::Done->rank('critical'),
        ];
        $sorted = $ranks;
        sort($sorted);
        self::assertSame($sorted, $ranks);
    }

    public function test_time_is_moved_within_a_split_and_never_more_than_there_is(): void
    {
        $shares = TimeShares::of((new SessionClock([]))->started(0)->stopped(60_000), [[20_000, Focus::Opportunity]], 60_000);
        $moved = $shares->moved(Focus::Opportunity, Focus::Charter, 40_000);
        self::assertSame(['charter' => 60_000, 'opportunity' => 0], $moved->focus);
        self::assertSame($shares->work, $moved->work);
        foreach (
            [[Focus::Opportunity, Focus::Charter, 50_000], [Focus::Charter, Work::Testing, 1], [Work::Testing, Work::SettingUp, -1]]
            as [$from, $to, $ms]
        ) {
            try {
                $shares->moved($from, $to, $ms);
                self::fail('It was moved.');
            } catch (\DomainException $e) {
                self::assertNotSame('', $e->getMessage());
            }
        }
    }

    public function test_both_splits_sum_to_the_active_time_whatever_is_pressed_when(): void
    {
        mt_srand(16);
        $all = [...Focus::cases(), ...Work::cases()];
        for ($n = 0; $n < 3_000; ++$n) {
            $clock = new SessionClock([]);
            $at = mt_rand(0, 50);
            $switches = [];
            for ($i = mt_rand(0, 30); $i >= 0; --$i) {
                // A device's clock may stand still, and once in a while goes back.
                $at += mt_rand(0, 9) > 0 ? mt_rand(0, 400) : -mt_rand(0, 60);
                match (mt_rand(0, 3)) {
                    0 => ($clock = $clock->started($at)),
                    1 => ($clock = $clock->stopped($at)),
                    default => ($switches[] = [$at, $all[mt_rand(0, 4)]]),
                };
            }
            $until = $at + mt_rand(0, 500);
            $shares = TimeShares::of($clock, $switches, $until);
            self::assertSame($clock->at($until), array_sum($shares->focus));
            self::assertSame($clock->at($until), array_sum($shares->work));
            foreach ([...$shares->focus, ...$shares->work] as $share) {
                self::assertGreaterThanOrEqual(0, $share);
            }
        }
    }

    public function test_issues_an_hour_have_their_exact_interval(): void
    {
        $told = static function (int $n, float $hours): array {
            $rate = PoissonRate::of($n, (int) ($hours * 3_600_000));

            return null === $rate
                ? []
                : array_map(static fn(float $v): float => round($v, 3), [$rate->perHour, $rate->lower, $rate->upper]);
        };
        self::assertSame([1.5, 0.409, 3.877], $told(3, 2));
        self::assertSame([0.0, 0.0, 1.997], $told(0, 1.5));
        self::assertSame([1.25, 0.493, 2.628], $told(5, 4));
        self::assertSame([], $told(3, 0));
        for ($n = 0; $n < 300; $n += 7) {
            $rate = PoissonRate::of($n, 3_600_000);
            self::assertTrue(null !== $rate && $rate->lower <= $n && $n < $rate->upper);
        }
    }

    public function test_figures_of_an_area_say_how_much_when_and_on_which_build(): void
    {
        $today = new \DateTimeImmutable('2026-11-30');
        $session = static fn(?int $build, string $day, int $issues): ExploredSession => new ExploredSession(
            $build,
            new \DateTimeImmutable($day),
            3_600_000,
            2_700_000,
            1_800_000,
            $issues,
            1,
        );
        $area = AreaFigures::of([$session(2, '2026-11-20', 1), $session(3, '2026-11-27', 2)], 5, $today);
        self::assertSame([2, 7_200_000, 0.75, 3, 2], [$area->sessions, $area->activeMs, $area->onCharter, $area->issues, $area->questions]);
        self::assertSame([3, 2, 3, true], [$area->daysSince, $area->buildsSince, $area->newest, $area->isBehind()]);
        self::assertSame(3.0, $area->issuesPerHour?->perHour);
        self::assertFalse(AreaFigures::of([$session(5, '2026-11-27', 0)], 5, $today)->isBehind());
        $never = AreaFigures::of([], 5, $today);
        self::assertTrue($never->isBehind());
        self::assertNull($never->daysSince ?? ($never->issuesPerHour ?? $never->onCharter));
    }

    public function test_observed_acts_are_sentences(): void
    {
        $say = static fn(
            LineKind $kind,
            string $control = '',
            ?string $value = null,
            ?string $page = null,
            string $words = '',
        ): string => Sentence::of(new SessionLine('1', $kind, 0, $words, page: $page, control: $control, value: $value));
        self::assertSame(
            [
                'Open "/booking"',
                'Press "Pay now"',
                'Type "2" into "Passengers"',
                'Type something into "Password"',
                'Choose "Holm" in "Route"',
                'Tick "Bike"',
                'Untick "Bike"',
                'Send the form',
                'Trouble: 500 of /pay',
                'Half a sentence',
            ],
            [
                $say(LineKind::Visit, page: '/booking'),
                $say(LineKind::Press, 'Pay now'),
                $say(LineKind::Type, 'Passengers', '2'),
                $say(LineKind::Type, 'Password'),
                $say(LineKind::Choose, 'Route', 'Holm'),
                $say(LineKind::Tick, 'Bike', '1'),
                $say(LineKind::Tick, 'Bike', ''),
                $say(LineKind::Submit),
                $say(LineKind::Trouble, words: '500 of /pay'),
                $say(LineKind::Note, words: 'Half a sentence'),
            ],
        );
        self::assertSame('Press "' . str_repeat('x', 79) . '…"', $say(LineKind::Press, str_repeat('x', 200)));
    }
}
