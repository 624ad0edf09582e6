<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * What needs the pass of an entry that fails can be stopped from every way of judging it.
 */
final class StopsTest extends FeatureTestCase
{
    private Entry $cause;

    private Entry $waits;

    private User $me;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person();
        [$this->cause, $this->waits] = [$this->world->entry($this->me, 1), $this->world->entry($this->me, 1)];
        $this->world->needs($this->waits, $this->cause, 'only_if_passed');
    }

    public function test_verdicts_from_the_list_show_what_they_would_stop_and_stop_it(): void
    {
        $alone = $this->world->entry($this->me, 1);
        $ids = [$this->cause->id, $alone->id];
        $this->as($this->me, 'GET', '/cycles/TST-R1/stops?ids=' . implode(',', $ids))
            ->assertOk()
            ->assertJsonCount(1, 'stops')
            ->assertJsonPath('stops.0.id', $this->waits->id);
        // What is judged itself is stopped by nothing.
        $this->as($this->me, 'GET', "/cycles/TST-R1/stops?ids={$this->cause->id},{$this->waits->id},x")->assertJsonCount(0, 'stops');
        $this->judge($ids, 'fail', false)->assertJsonPath('stopped', 0);
        self::assertSame(0, DB::table('entry_stops')->count());
        $this->judge($ids, 'blocked', true)->assertJsonPath('stopped', 1)->assertJsonPath('refused', []);
        self::assertSame('blocked', $this->waits->refresh()->display_state);
        $this->judge([$this->cause->id], 'pass', true)->assertJsonPath('stopped', 0);
        self::assertSame('not_run', $this->waits->refresh()->display_state);
    }

    public function test_who_was_away_asks_without_seeing_and_nothing_to_stop_is_no_fault_then(): void
    {
        $this->as($this->me, 'POST', "/entries/{$this->cause->id}/stops")->assertConflict();
        $this->as($this->me, 'POST', "/entries/{$this->cause->id}/stops", ['if_any' => true])
            ->assertCreated()
            ->assertJsonPath('stopped', []);
        $this->judge([$this->cause->id], 'fail', false);
        $this->as($this->me, 'POST', "/entries/{$this->cause->id}/stops", ['if_any' => true])
            ->assertCreated()
            ->assertJsonPath('stopped.0.id', $this->waits->id);
    }

    /**
     * @param  list<string>  $ids
     *
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function judge(array $ids, string $verdict, bool $stops): \Illuminate\Testing\TestResponse
    {
        return $this->as($this->me, 'POST', '/cycles/TST-R1/list-verdicts', [
            'ids' => $ids,
            'verdict' => $verdict,
            'note' => 'as seen',
            'reason' => '',
            'stops' => $stops,
        ])->assertOk();
    }
}
