<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Cycles;

use Illuminate\Support\Carbon;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

final class BoardTest extends FeatureTestCase
{
    public function test_a_board_tells_counts_order_reasons_and_who_walks(): void
    {
        $me = $this->world->person();
        [$a, $b] = [$this->world->entry($me), $this->world->entry($me, 2, ['not_before' => Carbon::now()->addDay()])];
        $this->world->needs($b, $a, 'after');
        $attempt = $this->as($me, 'POST', "/entries/{$a->id}/attempts")->json('attempt.id');
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", ['round' => 1, 'step' => 1, 'verdict' => 'pass']);
        $board = $this->as($this->world->lead(), 'GET', '/cycles/TST-R1')->assertOk();
        $board
            ->assertJsonPath('cycle.counts.in_progress', 1)
            ->assertJsonPath('cycle.total', 2)
            ->assertJsonPath('held', 1)
            ->assertJsonPath('walkers.0.person.name', 'Tester')
            ->assertJsonPath('walkers.0.case_key', 'TST-C1')
            ->assertJsonPath('trail.0.shown', 'in_progress')
            ->assertJsonPath('trail.1.shown', 'held');
        $this->as($me, 'GET', '/cycles/TST-R1/entries')
            ->assertJsonPath('items.0.walking.name', 'Tester')
            ->assertJsonPath('items.1.readiness', 'held')
            ->assertJsonPath('items.1.reasons.0.kind', 'too_early')
            ->assertJsonPath('items.1.reasons.1.kind', 'waits_for');
        $this->as($me, 'GET', '/cycles/TST-R1')->assertJsonPath('next_entry_id', $a->id);
        $this->as($me, 'GET', '/projects/TST/cycles')->assertJsonPath('0.key', 'TST-R1')->assertJsonPath('0.counts.in_progress', 1);
    }

    public function test_board_and_today_name_the_same_next_entry_by_role_and_policy(): void
    {
        $entry = $this->world->entry();
        $expected = [
            [true, Role::Tester, $entry->id],
            [true, Role::Lead, $entry->id],
            [true, Role::Reader, null],
            [false, Role::Tester, null],
        ];
        foreach ($expected as [$taking, $role, $next]) {
            $this->world->policies(['opening_takes' => $taking]);
            $person = $this->world->person("{$role->value} {$taking}", $role);
            $this->as($person, 'GET', '/cycles/TST-R1')->assertJsonPath('next_entry_id', $next);
            $this->as($person, 'GET', '/projects/TST/today')->assertJsonPath('next_entry_id', $next);
        }
    }

    public function test_no_list_makes_a_query_per_row(): void
    {
        $me = $this->world->person();
        $this->world->entry($me);
        $paths = [
            '/cycles/TST-R1',
            '/cycles/TST-R1/entries',
            '/cycles/TST-R1/trail',
            '/cycles/TST-R1/plan',
            '/projects/TST/today',
            '/projects/TST/cycles',
            '/projects/TST/cases',
            '/projects/TST/folders',
        ];
        $few = array_map(fn(string $path): int => $this->queries(fn() => $this->as($me, 'GET', $path)->assertOk()), $paths);
        for ($i = 0; $i < 12; $i++) {
            $this->world->entry($me);
        }
        $many = array_map(fn(string $path): int => $this->queries(fn() => $this->as($me, 'GET', $path)->assertOk()), $paths);
        self::assertSame($few, $many);
        self::assertLessThanOrEqual(22, max($many));
    }

    public function test_a_draft_cycle_is_not_walked_and_not_on_today(): void
    {
        $me = $this->world->person();
        $entry = $this->world->entry($me);
        $this->world->cycle->update(['state' => 'draft']);
        $this->as($me, 'GET', '/projects/TST/today')->assertJsonCount(0, 'cycles');
        // Testers find released cycles only; a lead sees it, and cannot walk it yet.
        $this->as($me, 'POST', "/entries/{$entry->id}/attempts")->assertNotFound();
        $this->as($me, 'GET', '/cycles/TST-R1')->assertNotFound();
        $this->as($this->world->lead(), 'POST', "/entries/{$entry->id}/attempts")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:cycle-not-released');
        $this->as($this->world->lead(), 'GET', '/cycles/TST-R1')->assertJsonPath('next_entry_id', null);
    }

    public function test_today_shows_mine_and_the_next_and_nobody_elses(): void
    {
        $me = $this->world->person();
        $this->world->entry($this->world->person('other'));
        $mine = $this->world->entry($me);
        $this->as($me, 'GET', '/projects/TST/today')->assertJsonCount(1, 'cycles.0.entries')->assertJsonPath('next_entry_id', $mine->id);
        $this->world->entry(null);
        $this->as($this->world->lead(), 'GET', '/projects/TST/today')
            ->assertJsonPath('cycles', [])
            ->assertJsonPath('free_entries', 1)
            ->assertJsonStructure(['next_entry_id']);
    }
}
