<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Cycles;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * Every change of entries, made and taken back, leaves the plan as it was, and costs the same number of queries however
 * many entries it is about.
 */
final class UndoTest extends FeatureTestCase
{
    private User $lead;

    /** @var list<Entry> */
    private array $entries = [];

    /**
     * @return array<string, array{string}>
     */
    public static function kinds(): array
    {
        return array_combine(
            $kinds = [
                'assign',
                'nobody',
                'window',
                'after',
                'only_if_passed',
                'no_condition',
                'move',
                'sort_by_dependencies',
                'remove',
                'hand_out',
            ],
            array_map(static fn(string $k): array => [$k], $kinds),
        );
    }

    /**
     * @return array<string, array{string, string, string}>
     */
    public static function lettingGo(): array
    {
        return [
            'conditions taken off' => ['no_condition', 'fail', 'blocked'],
            'taken out of the cycle' => ['remove', 'fail', 'blocked'],
            'the cause passed meanwhile' => ['no_condition', 'pass', 'not_run'],
        ];
    }

    #[DataProvider('lettingGo')]
    public function test_what_a_change_let_go_is_stopped_again_by_its_undo_if_it_still_would_be(
        string $act,
        string $meanwhile,
        string $shows,
    ): void {
        $lead = $this->world->lead();
        [$cause, $waits] = [$this->world->entry(null, 1), $this->world->entry(null, 1)];
        $this->world->needs($waits, $cause, 'only_if_passed');
        $judge = fn(string $verdict) => $this->as($lead, 'POST', '/cycles/TST-R1/list-verdicts', [
            'ids' => [$cause->id],
            'verdict' => $verdict,
            'note' => 'as seen',
            'reason' => '',
        ])->assertOk();
        $judge('fail');
        $this->as($lead, 'POST', "/entries/{$cause->id}/stops")->assertCreated();
        self::assertSame('blocked', $waits->refresh()->display_state);
        $done = $this->as($lead, 'POST', '/cycles/TST-R1/entry-acts', ['act' => $act, 'ids' => [$waits->id], 'changes' => []])
            ->assertOk()
            ->json('act_id');
        self::assertSame(0, DB::table('entry_stops')->count());
        if ('fail' !== $meanwhile) {
            $judge($meanwhile);
        }
        $this->as($lead, 'POST', "/plan-acts/{$done}/undo")->assertOk();
        self::assertSame($shows, Entry::query()->findOrFail($waits->id)->display_state);
        self::assertSame('blocked' === $shows ? [$lead->id] : [], DB::table('entry_stops')->pluck('actor_id')->all());
    }

    #[DataProvider('kinds')]
    public function test_what_is_changed_and_taken_back_is_as_it_was(string $kind): void
    {
        $this->plan(8, 'nobody' === $kind);
        $before = $this->state();
        $act = $this->change($kind, 3);
        self::assertNotSame($before, $this->state(), 'it changes something');
        $this->as($this->lead, 'POST', "/plan-acts/{$act}/undo")
            ->assertOk()
            ->assertJsonPath('refused', []);
        self::assertSame($before, $this->state());
        $this->as($this->lead, 'POST', "/plan-acts/{$act}/undo")->assertConflict();
    }

    #[DataProvider('kinds')]
    public function test_more_entries_make_no_more_queries(string $kind): void
    {
        $this->plan(60, 'nobody' === $kind);
        $count = fn(int $n): array => [
            $this->queries(function () use ($kind, $n, &$act): void {
                $act = $this->change($kind, $n);
            }),
            $this->queries(function () use (&$act): void {
                $this->as($this->lead, 'POST', "/plan-acts/{$act}/undo")->assertOk();
            }),
        ];
        $count(2);
        self::assertSame($count(3), $count(40));
    }

    public function test_a_sequence_of_changes_is_taken_back_in_any_state_without_touching_what_came_after(): void
    {
        $this->plan(6);
        $assigned = $this->change('assign', 3);
        $this->entries[1]->refresh()->update(['assignee_id' => $this->lead->id]);
        $undone = $this->as($this->lead, 'POST', "/plan-acts/{$assigned}/undo")->assertOk();
        self::assertSame([$this->entries[1]->id], array_column((array) $undone->json('refused'), 'id'));
        self::assertSame(
            [null, $this->lead->id, null],
            [
                $this->entries[0]->refresh()->assignee_id,
                $this->entries[1]->refresh()->assignee_id,
                $this->entries[2]->refresh()->assignee_id,
            ],
        );
    }

    private function plan(int $entries, bool $assigned = false): void
    {
        $this->lead = $this->world->lead();
        $this->world->cycle->update(['ends_on' => Carbon::now()->addDays(14)]);
        $this->world->person('a');
        $this->world->person('b');
        for ($i = 0; $i < $entries; $i++) {
            $this->entries[] = $this->world->entry($assigned ? $this->world->person('a') : null);
        }
        // Out of order on purpose: each of the first waits for one behind it.
        $this->world->needs($this->entries[0], $this->entries[$entries - 1], 'after');
        $this->world->needs($this->entries[1], $this->entries[$entries - 2], 'only_if_passed');
    }

    /**
     * @return string the id by which it is taken back
     */
    private function change(string $kind, int $n): string
    {
        $ids = array_map(static fn(Entry $e): string => $e->id, \array_slice($this->entries, 0, $n));
        $last = $this->entries[\count($this->entries) - 1]->id;
        [$a, $b] = [$this->world->person('a')->id, $this->world->person('b')->id];
        if ('nobody' === $kind) {
            Entry::query()
                ->whereIn('id', $ids)
                ->update(['assignee_id' => $a]);
        }
        if ('hand_out' === $kind) {
            $body = ['people' => [$a, $b], 'ids' => $ids];

            return (string) $this->as($this->lead, 'POST', '/cycles/TST-R1/assignments', $body)->assertOk()->json('act_id');
        }
        [$act, $changes] = match ($kind) {
            'assign' => ['assign', ['assignee_id' => $a, 'note' => 'Yours']],
            'nobody' => ['assign', ['assignee_id' => null]],
            'window' => ['window', ['not_before' => '2026-11-01T08:00:00Z', 'not_after' => '2027-11-01T08:00:00Z']],
            'after', 'only_if_passed' => ['condition', ['needs_id' => $last, 'kind' => $kind]],
            'no_condition' => ['no_condition', []],
            'move' => ['move', ['before_id' => null]],
            default => [$kind, []],
        };

        return (string) $this->as($this->lead, 'POST', '/cycles/TST-R1/entry-acts', ['act' => $act, 'ids' => $ids, 'changes' => $changes])
            ->assertOk()
            ->assertJsonPath('refused', [])
            ->json('act_id');
    }

    /**
     * @return array<string, mixed> the plan, entries by their order among themselves
     */
    private function state(): array
    {
        $entries = DB::table('entries')
            ->where('cycle_id', $this->world->cycle->id)
            ->orderBy('position')
            ->get();

        return [
            'entries' => $entries
                ->map(
                    static fn(\stdClass $e): array => array_diff_key((array) $e, ['updated_at' => 1, 'position' => 1, 'assigned_at' => 1]),
                )
                ->sortBy('id')
                ->values()
                ->all(),
            'order' => $entries->pluck('id')->all(),
            'conditions' => DB::table('entry_conditions')
                ->orderBy('entry_id')
                ->orderBy('needs_id')
                ->get()
                ->map(static fn($c): array => (array) $c)
                ->all(),
        ];
    }
}
