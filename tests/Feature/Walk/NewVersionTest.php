<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Walk\Actions\TakeNewVersion;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;

final class NewVersionTest extends FeatureTestCase
{
    private User $me;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person();
    }

    /**
     * Steps are dropped, added and put in another order; whatever stays the same keeps its verdict, words and
     * defect in each round, at its new place, and nothing else has any.
     */
    public function test_property_what_was_recorded_follows_its_step_in_every_round(): void
    {
        mt_srand(2026);
        for ($n = 0; $n < 8; ++$n) {
            [$entry, $attempt] = $this->walk($was = mt_rand(1, 7), mt_rand(1, 3));
            $this->judge($attempt);
            $before = $this->recorded($attempt);
            $now = $this->change($entry, $was);
            $this->app?->make(TakeNewVersion::class)($entry->refresh(), $this->me);
            $expected = [];
            foreach ($before as [$round, $step, $facts]) {
                $at = array_search($step, $now, true);
                if (false !== $at) {
                    $expected[] = [$round, $at + 1, $facts];
                }
            }
            sort($expected);
            self::assertSame($expected, $this->recorded($attempt), "change {$n}: of {$was} steps to " . json_encode($now));
            $places = DB::table('step_results')
                ->join('rounds', 'rounds.id', '=', 'round_id')
                ->where('attempt_id', $attempt)
                ->selectRaw('rounds.position as round, array_agg(step_results.position order by step_results.position) as places')
                ->groupBy('rounds.position')
                ->pluck('places')
                ->unique()
                ->all();
            self::assertSame(['{' . implode(',', range(1, \count($now))) . '}'], $places);
        }
    }

    public function test_it_takes_no_more_queries_for_many_rounds_and_steps(): void
    {
        $queries = [];
        foreach ([[3, 1], [9, 6]] as [$steps, $rounds]) {
            [$entry, $attempt] = $this->walk($steps, $rounds);
            $this->judge($attempt);
            $this->change($entry, $steps);
            $entry->refresh();
            $queries[] = $this->queries(fn() => $this->app?->make(TakeNewVersion::class)($entry, $this->me));
        }
        // By how many verdicts the rounds roll up to, not by how many rounds there are.
        self::assertEqualsWithDelta($queries[0], $queries[1], 5);
    }

    /**
     * @return array{Entry, string} an entry and its open attempt with so many rounds
     */
    private function walk(int $steps, int $rounds): array
    {
        $entry = $this->world->entry($this->me, $steps);
        $attempt = (string) $this->as($this->me, 'POST', "/entries/{$entry->id}/attempts")->json('attempt.id');
        for ($round = 2; $round <= $rounds; ++$round) {
            $id = (string) Str::uuid7();
            DB::table('rounds')->insert(['id' => $id, 'attempt_id' => $attempt, 'position' => $round, 'data_row' => '{}']);
            foreach (range(1, $steps) as $step) {
                DB::table('step_results')->insert(['id' => (string) Str::uuid7(), 'round_id' => $id, 'position' => $step]);
            }
        }

        return [$entry, $attempt];
    }

    /**
     * Records something at about every second step: a verdict with what happened, or a defect.
     */
    private function judge(string $attempt): void
    {
        $steps = DB::table('step_results')->join('rounds', 'rounds.id', '=', 'round_id')->where('attempt_id', $attempt);
        foreach ($steps->get(['rounds.position as round', 'step_results.position as step']) as $at) {
            $place = ['round' => $at->round, 'step' => $at->step];
            if (0 === mt_rand(0, 1)) {
                $given = ['verdict' => ['pass', 'fail'][mt_rand(0, 1)], 'happened' => "Seen in round {$at->round} at {$at->step}"];
                $this->as($this->me, 'POST', "/attempts/{$attempt}/verdicts", [...$place, ...$given])->assertOk();
            }
            if (0 === mt_rand(0, 4)) {
                $this->as($this->me, 'POST', '/projects/TST/defects', [
                    ...$place,
                    'title' => "Of {$at->step}",
                    'attempt_id' => $attempt,
                ])->assertCreated();
            }
        }
    }

    /**
     * @return list<array{int, int, list<string>}> round, step, and what stands there
     */
    private function recorded(string $attempt): array
    {
        $found = [];
        $results = DB::table('step_results')->join('rounds', 'rounds.id', '=', 'round_id')->where('attempt_id', $attempt);
        foreach ($results->get(['rounds.position as round', 'step_results.position as step', 'verdict', 'happened']) as $result) {
            if ('not_run' !== $result->verdict) {
                $found[] = [$result->round, $result->step, [$result->verdict, $result->happened]];
            }
        }
        $links = DB::table('defect_links')->join('defects', 'defects.id', '=', 'defect_id')->where('attempt_id', $attempt);
        foreach ($links->whereNotNull('step')->get(['round', 'step', 'title']) as $link) {
            $found[] = [$link->round, $link->step, [$link->title]];
        }
        sort($found);

        return $found;
    }

    /**
     * @return list<?int> the old step (from 1) at each new place; null where it is new
     */
    private function change(Entry $entry, int $steps): array
    {
        $now = range(1, $steps);
        shuffle($now);
        $now = \array_slice($now, 0, mt_rand(1, $steps));
        array_splice($now, mt_rand(0, \count($now)), 0, [null]);
        $key = $entry->case->key;
        $new = static fn(?int $old): array => null === $old
            ? ['action' => 'Ring the bell', 'data' => '', 'expected' => 'It rings']
            : ['action' => "Do {$old}", 'data' => "data {$old}", 'expected' => "See {$old}"];
        $this->as($this->me, 'PUT', "/cases/{$key}", [
            'title' => $entry->case->title,
            'revision' => 1,
            'steps' => array_map($new, $now),
        ])->assertOk();

        return $now;
    }
}
