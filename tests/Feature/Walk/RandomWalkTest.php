<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Coverage\Queries\CoverageLens;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\Verdict;
use LucidStep\Tests\Support\CoverageFromScratch;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * Three people do whatever comes to their minds with two entries: what holds of a walk holds after each of it.
 */
final class RandomWalkTest extends FeatureTestCase
{
    use Walks;

    private const STEPS = 2;

    /** @var list<User> */
    private array $people;

    /** @var list<Entry> */
    private array $entries;

    /** @var array<string, int> how often each kind of act was answered with each status */
    private array $done = [];

    protected function setUp(): void
    {
        parent::setUp();
        $this->people = [$this->world->person('isla'), $this->world->person('rory'), $this->world->lead()];
        $this->entries = [
            $this->world->entry($this->people[0], self::STEPS),
            $this->withRows($this->people[1], [['isla', '3'], ['rory', '4']]),
        ];
    }

    /**
     * @return iterable<string, array{int}>
     */
    public static function seeds(): iterable
    {
        foreach ([1, 2, 3, 4, 5] as $seed) {
            yield "seed {$seed}" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_whatever_is_done_the_rules_hold(int $seed): void
    {
        mt_srand($seed);
        for ($n = 1; $n <= 60; $n++) {
            $what = $this->act();
            foreach ($this->entries as $entry) {
                $this->holds($entry->refresh(), "seed {$seed}, after {$n}: {$what}");
            }
            CoverageFromScratch::equalsWhatIsKept($this->world->project, new CoverageLens(), "coverage, seed {$seed}, after {$n}: {$what}");
        }
        $verification = app(CycleChain::class)->verify($this->world->cycle->refresh());
        self::assertSame('whole', $verification->state);
        self::assertGreaterThan(
            15,
            array_sum(
                array_filter(
                    $this->done,
                    static fn(string $k): bool => str_ends_with($k, ' 200') || str_ends_with($k, ' 201'),
                    ARRAY_FILTER_USE_KEY,
                ),
            ),
            (string) json_encode($this->done),
        );
    }

    /**
     * @return string what was done
     */
    private function act(): string
    {
        $entry = $this->entries[mt_rand(0, 1)]->refresh();
        $who = $this->people[mt_rand(0, 2)];
        $attempt = $entry->open_attempt_id ?? $entry->last_attempt_id;
        $rounds = null === $attempt ? 1 : DB::table('rounds')->where('attempt_id', $attempt)->count();
        $at = ['round' => mt_rand(1, $rounds), 'step' => mt_rand(1, self::STEPS)];
        $verdict = ['pass', 'pass', 'pass', 'fail', 'blocked', 'not_applicable', 'not_run'][mt_rand(0, 6)];
        $kinds =
            null === $attempt
                ? ['start']
                : [
                    'start',
                    'verdict',
                    'verdict',
                    'verdict',
                    'verdict',
                    'verdict',
                    'note',
                    'try',
                    'skip',
                    'take_up',
                    'repeat',
                    'take over',
                    'finish',
                    'finish',
                    'retest',
                    'again',
                    'list',
                    'time',
                    'parallel_reason',
                ];
        $kind = $kinds[mt_rand(0, count($kinds) - 1)];
        [$path, $body] = match ($kind) {
            'start' => ["/entries/{$entry->id}/attempts", []],
            'again' => ["/entries/{$entry->id}/attempts", ['again' => true]],
            'parallel_reason' => [
                "/entries/{$entry->id}/device-attempts",
                ['id' => (string) Str::uuid7(), 'case_version_id' => $entry->case_version_id],
            ],
            'verdict' => [
                "/attempts/{$attempt}/verdicts",
                [
                    ...$at,
                    'verdict' => $verdict,
                    'happened' => 'It broke.',
                    'reason' => ['fail' => 'Too slow', 'blocked' => 'No access'][$verdict] ?? '',
                    'active_ms' => mt_rand(0, 5000),
                ],
            ],
            'note' => ["/attempts/{$attempt}/notes", [...$at, 'note' => "Note {$verdict}"]],
            'try' => ["/attempts/{$attempt}/tries", [...$at, 'failed' => 'fail' === $verdict]],
            'skip' => ["/attempts/{$attempt}/rounds", ['round' => $at['round'], 'act' => 'skip', 'reason' => 'Nobody there']],
            'take_up' => ["/attempts/{$attempt}/rounds", ['round' => $at['round'], 'act' => 'take_up']],
            'repeat' => ["/attempts/{$attempt}/rounds", ['round' => $at['round'], 'act' => 'repeat']],
            'take over' => ["/attempts/{$attempt}/take-over", []],
            'finish' => [
                "/attempts/{$attempt}/finish",
                mt_rand(0, 1) === 0 ? [] : ['verdict' => 'not_run' === $verdict ? 'pass' : $verdict, 'note' => 'As I saw it'],
            ],
            'retest' => ["/entries/{$entry->id}/retests", ['reason' => 'Once more']],
            'list' => [
                '/cycles/TST-R1/list-verdicts',
                ['ids' => [$entry->id], 'verdict' => 'not_run' === $verdict ? 'pass' : $verdict, 'note' => 'Seen from afar'],
            ],
            'time' => ["/attempts/{$attempt}/time", ['time' => mt_rand(1, 90) . 'm']],
        };
        $status = $this->as($who, 'POST', $path, $body)->getStatusCode();
        self::assertLessThan(500, $status, "{$kind} of {$who->name}");
        $this->done["{$kind} {$status}"] = ($this->done["{$kind} {$status}"] ?? 0) + 1;

        return "{$kind} by {$who->name}, answered {$status}";
    }

    private function holds(Entry $entry, string $when): void
    {
        $attempts = Attempt::query()->where('entry_id', $entry->id)->orderBy('number')->get();
        self::assertSame(
            range(1, max(1, $attempts->count())),
            [] === $attempts->all() ? [1] : $attempts->pluck('number')->all(),
            "numbers run on, {$when}",
        );
        $open = $attempts->filter(static fn(Attempt $a): bool => AttemptState::Open === $a->state && null === $a->parallel_reason);
        self::assertLessThanOrEqual(1, $open->count(), "at most one is open, {$when}");
        self::assertSame($open->first()?->id, $entry->open_attempt_id, "which one is open, {$when}");
        foreach ($attempts as $attempt) {
            $this->attemptHolds($attempt, $when);
        }
        self::assertSame($this->shows($entry, array_values($attempts->all())), $entry->display_state, "what the entry shows, {$when}");
    }

    private function attemptHolds(Attempt $attempt, string $when): void
    {
        $rounds = DB::table('rounds')
            ->where('attempt_id', $attempt->id)
            ->orderBy('position')
            ->get(['id', 'position', 'repeats', 'skipped', 'roll_up']);
        $steps = DB::table('step_results')
            ->whereIn('round_id', $rounds->pluck('id'))
            ->get(['round_id', 'verdict', 'active_ms'])
            ->groupBy('round_id');
        $repeated = $rounds->pluck('repeats')->filter()->all();
        $counted = [];
        foreach ($rounds as $round) {
            $own = null === $round->skipped ? $this->rollUp(array_values($steps[$round->id]->pluck('verdict')->all())) : 'not_applicable';
            self::assertSame($own, $round->roll_up, "round {$round->position}, {$when}");
            if (!in_array($round->position, $repeated, true)) {
                $counted[] = $own;
            }
        }
        self::assertSame($this->rollUp($counted), $attempt->roll_up->value, "the roll-up, {$when}");
        self::assertGreaterThanOrEqual($steps->flatten(1)->sum('active_ms'), $attempt->active_ms, "time, {$when}");
        $state = $this->as($this->people[2], 'GET', "/attempts/{$attempt->id}/verification")->json('state');
        self::assertSame(AttemptState::Open === $attempt->state ? 'open' : 'whole', $state, "the record of {$attempt->number}, {$when}");
        $chain = $this->as($this->people[2], 'GET', "/cycles/{$this->world->cycle->key}/verification");
        self::assertSame('whole', $chain->json('state'), "{$chain->json('why')}, the chain of the cycle, {$when}");
        self::assertSame(AttemptState::Open !== $attempt->state, null !== $attempt->sealed_sequence, "sealed, {$when}");
        if (AttemptState::Finished === $attempt->state) {
            self::assertTrue($attempt->verdict?->isFinal(), "a final verdict, {$when}");
            self::assertSame($attempt->verdict !== $attempt->roll_up, $attempt->overruled, "overruled, {$when}");
        }
    }

    /**
     * As the rules say it, written once more.
     *
     * @param  list<Attempt>  $attempts
     */
    private function shows(Entry $entry, array $attempts): string
    {
        $finished = array_values(array_filter($attempts, static fn(Attempt $a): bool => AttemptState::Finished === $a->state));
        $last = end($finished);
        foreach ($attempts as $attempt) {
            if (AttemptState::Open === $attempt->state && null === $attempt->parallel_reason && $attempt->has_verdict) {
                return 'in_progress';
            }
        }
        if (null !== $entry->retest_asked_at && false !== $last && $entry->retest_asked_at > $last->started_at) {
            return 'retest';
        }

        return false === $last ? 'not_run' : (string) $last->verdict?->value;
    }

    /**
     * @param  list<string>  $verdicts
     */
    private function rollUp(array $verdicts): string
    {
        $has = static fn(string $v): bool => in_array($v, $verdicts, true);
        $all = static fn(string $v): bool => [] === array_diff($verdicts, [$v]);

        return match (true) {
            $has('fail') => 'fail',
            $has('blocked') => 'blocked',
            $all('not_run') => 'not_run',
            $has('not_run'), $has('in_progress') => 'in_progress',
            $all('not_applicable') => 'not_applicable',
            default => Verdict::Pass->value,
        };
    }
}
