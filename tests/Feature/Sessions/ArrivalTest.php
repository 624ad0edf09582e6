<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Sessions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Record\SessionJournal;
use LucidStep\Core\Sessions\SessionClock;
use LucidStep\Core\Sessions\TimeShares;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Whatever a device did without the server arrives once and takes its place, however often it is sent and by however much its clock is off.
 */
final class ArrivalTest extends FeatureTestCase
{
    private User $me;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person('tess');
    }

    public function test_what_was_done_arrives_once_in_its_place_with_every_millisecond_in_both_splits(): void
    {
        mt_srand(8);
        for ($turn = 0; $turn < 12; ++$turn) {
            Carbon::setTestNow('2026-11-30 09:00:00');
            $this->as($this->me, 'POST', '/projects/TST/charters', ['title' => "Turn {$turn}"])->assertCreated();
            $session = (string) Str::uuid7();
            // A clock that is off by minutes, of a device that says when it sends.
            $off = mt_rand(-20, 20) * 60;
            $start = Carbon::parse('2026-11-30 10:00:00');
            $acts = $this->acts($session, $start, $charter = 'TST-S' . ($turn + 1));
            $sends = Carbon::parse('2026-11-30 13:00:00');
            foreach ($acts as $i => [$path, $body, $at]) {
                $body += [
                    'device_time' => $at->copy()->addSeconds($off)->toIso8601ZuluString('millisecond'),
                    'sent_at' => $sends->copy()->addSeconds($off)->toIso8601ZuluString('millisecond'),
                    'counter' => $i + 1,
                ];
                Carbon::setTestNow($sends);
                $key = ['Idempotency-Key' => (string) Str::uuid7()];
                // Now and then an answer is lost on its way, and the same is sent again.
                for ($n = mt_rand(0, 3) > 0 ? 1 : 2; $n > 0; --$n) {
                    $this->as($this->me, 'POST', $path, $body, $key)->assertSuccessful();
                }
                $sends->addMilliseconds(mt_rand(5, 900));
            }
            $this->check($session, $acts, $start, $charter);
        }
    }

    /**
     * @return list<array{string, array<string, mixed>, Carbon}> where each is sent, what, and when it was done
     */
    private function acts(string $session, Carbon $start, string $charter): array
    {
        $acts = [["/charters/{$charter}/sessions", ['id' => $session], $start->copy()]];
        $at = $start->copy();
        $runs = true;
        foreach (range(1, mt_rand(6, 18)) as $i) {
            $at = $at->copy()->addMilliseconds(mt_rand(1, 400_000));
            $path = "/test-sessions/{$session}";
            $acts[] = match (mt_rand(0, 3)) {
                0 => ["{$path}/moves", ['to' => ($runs = !$runs) ? 'running' : 'paused'], $at],
                1 => [
                    "{$path}/switches",
                    ['to' => ['charter', 'opportunity', 'testing', 'investigating', 'setting_up'][mt_rand(0, 4)]],
                    $at,
                ],
                default => ["{$path}/lines", ['id' => (string) Str::uuid7(), 'kind' => 'note', 'words' => "Line {$i}"], $at],
            };
        }
        $acts[] = ["/test-sessions/{$session}/moves", ['to' => 'stopped'], $at->copy()->addMilliseconds(mt_rand(1, 90_000))];

        return $acts;
    }

    /**
     * @param  list<array{string, array<string, mixed>, Carbon}>  $acts
     */
    private function check(string $id, array $acts, Carbon $start, string $charter): void
    {
        [$clock, $switches, $lines] = [new SessionClock([]), [], []];
        foreach ($acts as [$path, $body, $at]) {
            $ms = $at->getTimestampMs();
            match (true) {
                str_ends_with($path, '/sessions') => ($clock = $clock->started($ms)),
                str_ends_with($path, '/moves') => ($clock = 'running' === $body['to'] ? $clock->started($ms) : $clock->stopped($ms)),
                str_ends_with($path, '/switches') => ($switches[] = [$ms, TestSession::share($body['to'])]),
                default => ($lines[] = [$body['words'], $clock->at($ms)]),
            };
        }
        $session = TestSession::query()->findOrFail($id);
        $end = $acts[\count($acts) - 1][2]->getTimestampMs();
        $shares = $session->shares($end);
        self::assertSame($clock->runs(), $session->runs, $charter);
        self::assertSame($start->getTimestampMs(), $session->started_at->getTimestampMs());
        self::assertEquals(TimeShares::of($clock, $switches, $end), $shares);
        self::assertSame($clock->at($end), array_sum($shares->focus));
        $items = (array) $this->as($this->me, 'GET', "/test-sessions/{$id}/lines")->json('items');
        self::assertSame($lines, array_map(static fn(array $l): array => [$l['words'], $l['at_ms']], $items));
        self::assertSame('whole', $this->app->make(SessionJournal::class)->verify($session)->state);
        self::assertSame(\count($acts), DB::table('session_events')->where('session_id', $id)->count());
    }
}
