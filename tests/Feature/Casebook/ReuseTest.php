<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\DataRow;
use LucidStep\App\Models\TestCase;
use LucidStep\Tests\Support\FeatureTestCase;

final class ReuseTest extends FeatureTestCase
{
    public function test_a_routine_is_changed_in_one_place_for_all_who_use_it(): void
    {
        $me = $this->world->person();
        $routine = $this->routine(
            'Sign in',
            [['action' => 'Open'], ['action' => 'Type {{who}}']],
            [['name' => 'who', 'default' => 'isla']],
        );
        foreach ([1, 2] as $n) {
            $this->as($me, 'POST', '/projects/TST/cases', [
                'title' => "Uses it {$n}",
                'steps' => [['routine' => $routine, 'values' => ['Who' => "person {$n}"]], ['action' => 'Go on']],
            ])
                ->assertCreated()
                ->assertJsonPath('problems', []);
        }
        $this->as($me, 'GET', "/routines/{$routine}")
            ->assertJsonPath('routine.uses', 2)
            ->assertJsonPath('used_in.0.key', 'TST-C1')
            ->assertJsonPath('used_in.0.steps', '1');
        $this->as($me, 'GET', '/projects/TST/routines')->assertJsonPath('0.uses', 2)->assertJsonPath('0.steps', 2);
        $this->as($me, 'PUT', "/routines/{$routine}", [
            'name' => 'Sign in',
            'parameters' => [['name' => 'who', 'default' => '']],
            'steps' => [['action' => 'Open slowly'], ['action' => 'Type {{who}}']],
            'revision' => 1,
        ])
            ->assertOk()
            ->assertJsonPath('version', 2);
        $check = $this->as($me, 'POST', '/projects/TST/case-checks', [
            'title' => 'x',
            'steps' => [['routine' => $routine, 'values' => ['who' => 'rory']]],
        ])->assertOk();
        $check->assertJsonPath('steps.0.action.0.text', 'Open slowly')->assertJsonPath('steps.1.routines', ['Sign in']);
        self::assertSame('Type rory', implode('', array_column((array) $check->json('steps.1.action'), 'text')));
        $this->as($me, 'PUT', "/routines/{$routine}", ['name' => 'Sign in', 'steps' => [['action' => 'x']], 'revision' => 1])->assertStatus(
            412,
        );
        $this->as($me, 'GET', '/projects/TST/cases?routine=' . $routine)->assertJsonCount(2, 'items');
    }

    public function test_a_used_routine_is_not_binned_but_shown_where(): void
    {
        $me = $this->world->person();
        $routine = $this->routine('Pay', [['action' => 'Pay']]);
        $key = $this->as($me, 'POST', '/projects/TST/cases', ['title' => 'Uses it', 'steps' => [['routine' => $routine]]])->json(
            'case.key',
        );
        $this->as($me, 'DELETE', "/routines/{$routine}")
            ->assertConflict()
            ->assertJsonPath('used_in.0.key', $key);
        $this->as($me, 'PUT', "/cases/{$key}", [
            'title' => 'Uses it',
            'steps' => [['action' => 'Pay by hand']],
            'revision' => 1,
        ])->assertOk();
        $this->as($me, 'DELETE', "/routines/{$routine}")->assertOk();
        $this->as($me, 'GET', '/projects/TST/routines')->assertJsonCount(0);
        $this->routine('Pay', [['action' => 'Another']]);
        $this->as($me, 'POST', "/routines/{$routine}/restorations")->assertUnprocessable();
        $this->as($me, 'GET', '/projects/TST/routines?bin=yes')->assertJsonCount(1);
    }

    public function test_a_routine_within_itself_is_refused_and_the_loop_is_named(): void
    {
        $me = $this->world->person();
        $a = $this->routine('Outer', [['action' => 'x']]);
        $b = $this->routine('Inner', [['routine' => $a]]);
        $this->as($me, 'PUT', "/routines/{$a}", ['name' => 'Outer', 'steps' => [['routine' => $b]], 'revision' => 1])
            ->assertUnprocessable()
            ->assertJsonPath('errors.steps.0', 'A routine cannot stand within itself: Outer → Inner → Outer.');
        $this->as($me, 'POST', '/projects/TST/routines', ['name' => 'outer', 'steps' => [['action' => 'x']]])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['name']]);
        $this->as($me, 'POST', '/projects/TST/routines', [
            'name' => 'Bad',
            'parameters' => [['name' => 'two words'], ['name' => 'a'], ['name' => 'A']],
            'steps' => [],
        ])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['parameters.0.name', 'parameters.2.name', 'steps']]);
    }

    public function test_steps_of_a_case_become_a_routine(): void
    {
        $me = $this->world->person();
        $case = $this->world->case(4);
        $this->as($me, 'POST', "/cases/{$case->key}/routines", [
            'name' => 'Middle',
            'positions' => [2, 4],
            'revision' => 1,
        ])->assertUnprocessable();
        $routine = $this->as($me, 'POST', "/cases/{$case->key}/routines", ['name' => 'Middle', 'positions' => [3, 2], 'revision' => 1])
            ->assertCreated()
            ->assertJsonPath('steps.0.action', 'Do 2')
            ->json('routine.id');
        $now = $this->as($me, 'GET', "/cases/{$case->key}")
            ->assertJsonCount(3, 'steps')
            ->assertJsonPath('steps.1.routine', $routine)
            ->assertJsonPath('routines.0.name', 'Middle');
        self::assertSame(2, $now->json('version'));
        $this->as($me, 'POST', "/cases/{$case->key}/routines", ['name' => 'Late', 'positions' => [1], 'revision' => 1])->assertStatus(412);
    }

    public function test_a_table_fills_the_steps_and_says_what_is_missing_where_it_is_written(): void
    {
        $me = $this->world->person();
        $table = $this->as($me, 'POST', '/projects/TST/data-tables', ['name' => 'Passengers', 'text' => "name\tage\nIsla\t34\nRory\t\n"])
            ->assertCreated()
            ->assertJsonPath('table.rows', 2)
            ->json('table.id');
        $body = [
            'title' => 'Ages',
            'table' => $table,
            'steps' => [['action' => 'Type {{name}}', 'expected' => 'Age {{AGE}}'], ['action' => '{{nme}}']],
        ];
        $this->as($me, 'POST', '/projects/TST/cases', $body)
            ->assertCreated()
            ->assertJsonPath('problems.0.step', 2)
            ->assertJsonPath('problems.0.field', 'action')
            ->assertJsonPath('problems.0.nearest', 'name');
        $this->as($me, 'POST', '/projects/TST/case-checks', [...$body, 'row' => 2])
            ->assertJsonPath('rows', 2)
            ->assertJsonPath('row_label', 'Rory')
            ->assertJsonPath('steps.0.expected.1', ['text' => '(empty)', 'column' => 'AGE', 'empty' => true, 'secret' => false]);
        $this->as($me, 'GET', "/projects/TST/cases?table={$table}")->assertJsonCount(1, 'items');
        foreach (
            [
                ['columns' => [['name' => 'a b']], 'rows' => []],
                ['columns' => [['name' => 'a']], 'rows' => [['cells' => ['1', '2']]]],
                ['text' => "a,a\n1,2"],
            ]
            as $bad
        ) {
            $this->as($me, 'POST', '/projects/TST/data-tables', ['name' => 'Bad', ...$bad])->assertUnprocessable();
        }
    }

    public function test_a_column_in_use_stays_and_its_places_are_named(): void
    {
        $me = $this->world->person();
        $routine = $this->routine('Greets', [['action' => 'Say hello to {{name}}']]);
        $table = $this->table([['name' => 'name'], ['name' => 'age']], [['Isla', '34']]);
        $this->as($me, 'POST', '/projects/TST/cases', [
            'title' => 'x',
            'table' => $table,
            'steps' => [['action' => 'a'], ['routine' => $routine]],
        ])->assertJsonPath('problems', []);
        $this->as($me, 'PUT', "/data-tables/{$table}", [
            'name' => 'People',
            'columns' => [['name' => 'age']],
            'rows' => [['cells' => ['34']]],
            'revision' => 1,
        ])
            ->assertConflict()
            ->assertJsonPath('places', ['TST-C1 step 2']);
        $this->as($me, 'PUT', "/data-tables/{$table}", [
            'name' => 'People',
            'columns' => [['name' => 'name']],
            'rows' => [['cells' => ['Isla']]],
            'revision' => 1,
        ])->assertOk();
        $this->as($me, 'DELETE', "/data-tables/{$table}")
            ->assertConflict()
            ->assertJsonPath('used_in.0.key', 'TST-C1');
    }

    public function test_secret_cells_are_kept_encrypted_and_never_read_back(): void
    {
        $me = $this->world->person();
        $table = $this->table([['name' => 'user'], ['name' => 'pin', 'secret' => true]], [['isla', 'kelpie-4711'], ['rory', '']]);
        self::assertStringNotContainsString('kelpie', (string) json_encode(DataRow::query()->pluck('cells')));
        $read = $this->as($me, 'GET', "/data-tables/{$table}")
            ->assertJsonPath('rows.0.cells', ['isla', null])
            ->assertJsonPath('rows.1.cells', ['rory', '']);
        $rows = (array) $read->json('rows');
        $rows[0]['cells'][0] = '';
        $this->as($me, 'PUT', "/data-tables/{$table}", [
            'name' => 'People',
            'columns' => [['name' => 'user'], ['name' => 'pin', 'secret' => true]],
            'rows' => $rows,
            'revision' => 1,
        ])
            ->assertOk()
            ->assertJsonPath('rows.0.cells', ['', null]);
        self::assertSame(
            ['', 'kelpie-4711'],
            DataRow::query()
                ->orderBy('position')
                ->firstOrFail()
                ->clear([['name' => 'user', 'secret' => false], ['name' => 'pin', 'secret' => true]]),
        );
        $check = $this->as($me, 'POST', '/projects/TST/case-checks', ['table' => $table, 'steps' => [['action' => '{{pin}}']]]);
        $check->assertJsonPath('steps.0.action.0.text', '••••');
    }

    public function test_a_walk_has_the_routine_and_the_row_as_they_were_at_its_start(): void
    {
        $me = $this->world->person();
        $routine = $this->routine(
            'Sign in',
            [['action' => 'Type {{who}} and {{pin}}'], ['action' => 'Enter']],
            [['name' => 'who', 'default' => '']],
        );
        $table = $this->table(
            [['name' => 'user'], ['name' => 'pin', 'secret' => true]],
            [['isla', 'kelpie-4711'], ['rory', 'selkie-0815']],
        );
        $entry = $this->world->entry($me, 1);
        $case = TestCase::query()->findOrFail($entry->case_id);
        $this->as($me, 'PUT', "/cases/{$case->key}", [
            'title' => 'x',
            'table' => $table,
            'steps' => [['routine' => $routine, 'values' => ['who' => '{{user}}']], ['action' => 'Pay']],
            'revision' => 1,
        ])->assertOk();
        $rows = (array) $this->as($me, 'GET', "/data-tables/{$table}")->json('rows');
        $entry->update(['case_version_id' => $case->refresh()->version_id, 'row_ids' => [$rows[1]['id']]]);
        $attempt = $this->as($me, 'POST', "/entries/{$entry->id}/attempts")
            ->assertCreated()
            ->assertJsonCount(3, 'steps')
            ->assertJsonPath('steps.0.action', 'Type `rory` and `selkie-0815`')
            ->assertJsonPath('steps.0.routines', ['Sign in'])
            ->json('attempt.id');
        $this->as($me, 'PUT', "/data-tables/{$table}", [
            'name' => 'People',
            'columns' => [['name' => 'user'], ['name' => 'pin', 'secret' => true]],
            'rows' => [['cells' => ['other', 'x']]],
            'revision' => 1,
        ])->assertOk();
        $this->as($me, 'GET', "/attempts/{$attempt}")->assertJsonPath('steps.0.action', 'Type `rory` and `selkie-0815`');
        $this->as($this->world->lead(), 'GET', "/attempts/{$attempt}")->assertJsonPath('steps.0.action', 'Type `rory` and `••••`');
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", [
            'round' => 1,
            'step' => 1,
            'verdict' => 'fail',
            'happened' => 'selkie-0815 is refused',
        ])->assertOk();
        $draft = $this->as($me, 'GET', "/attempts/{$attempt}/defect-draft?round=1&step=1")->assertOk();
        self::assertStringNotContainsString('selkie-0815', (string) $draft->getContent());
        self::assertStringContainsString('rory', (string) $draft->getContent());
        $this->as(
            $me,
            'POST',
            "/attempts/{$attempt}/notes",
            ['round' => 1, 'step' => 2, 'note' => 'Entered selkie-0815 twice'],
            ['Idempotency-Key' => (string) Str::uuid7()],
        )->assertOk();
        $this->as($me, 'POST', '/projects/TST/defects', [
            'title' => 'selkie-0815 is refused',
            'body' => 'With selkie-0815',
            'attempt_id' => $attempt,
            'round' => 1,
            'step' => 1,
        ])
            ->assertCreated()
            ->assertJsonPath('defect.title', '•••• is refused');
        $this->as($me, 'POST', "/entries/{$entry->id}/attempts", [], ['Idempotency-Key' => (string) Str::uuid7()])
            ->assertCreated()
            ->assertJsonPath('steps.0.action', 'Type `rory` and `selkie-0815`');
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", ['verdict' => 'fail', 'note' => 'selkie-0815 again'])->assertOk();
        foreach (['events', 'step_results', 'attempts', 'rounds', 'defects', 'data_rows', 'idempotency_keys', 'case_log'] as $table) {
            self::assertStringNotContainsString('selkie', (string) json_encode(DB::table($table)->get()), $table);
        }
    }

    /**
     * @param  list<array<string, mixed>>  $steps
     * @param  list<array<string, mixed>>  $parameters
     */
    private function routine(string $name, array $steps, array $parameters = []): string
    {
        return (string) $this->as($this->world->person(), 'POST', '/projects/TST/routines', [
            'name' => $name,
            'steps' => $steps,
            'parameters' => $parameters,
        ])
            ->assertCreated()
            ->json('routine.id');
    }

    /**
     * @param  list<array<string, mixed>>  $columns
     * @param  list<list<string>>  $rows
     */
    private function table(array $columns, array $rows): string
    {
        return (string) $this->as($this->world->person(), 'POST', '/projects/TST/data-tables', [
            'name' => 'People',
            'columns' => $columns,
            'rows' => array_map(static fn(array $c): array => ['cells' => $c], $rows),
        ])
            ->assertCreated()
            ->json('table.id');
    }
}
