<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Folder;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\World;

final class ManyTest extends FeatureTestCase
{
    public function test_many_are_edited_seen_beforehand_and_taken_back_as_one(): void
    {
        $me = $this->world->person();
        $cases = [$this->world->case(1), $this->world->case(1), $this->world->case(1)];
        $this->act('edit', $cases[2], ['priority' => 'low', 'labels_add' => ['old']]);
        $body = [
            'act' => 'edit',
            'filter' => ['q' => 'case'],
            'changes' => ['priority' => 'low', 'labels_add' => ['Tide'], 'labels_remove' => ['OLD']],
        ];
        $this->as($me, 'POST', '/projects/TST/case-previews', $body)
            ->assertOk()
            ->assertJsonPath('changed', 3)
            ->assertJsonPath('samples.0.changes.1', ['field' => 'labels', 'from' => '', 'to' => 'Tide']);
        self::assertSame(2, TestCase::query()->where('priority', 'medium')->count(), 'a preview writes nothing');
        $done = $this->as($me, 'POST', '/projects/TST/case-acts', $body)
            ->assertOk()
            ->assertJsonPath('changed', 3)
            ->assertJsonPath('title', 'Changed 3 cases');
        self::assertSame(
            [['Tide'], ['Tide'], ['Tide']],
            TestCase::query()->orderBy('number')->get()->map(static fn(TestCase $c): array => $c->labels)->all(),
        );
        $this->as($me, 'POST', '/projects/TST/case-acts', $body)->assertJsonPath('changed', 0)->assertJsonPath('act_id', null);
        $this->act('edit', $cases[0], ['priority' => 'high']);
        $this->as($me, 'POST', "/case-acts/{$done->json('act_id')}/undo")
            ->assertOk()
            ->assertJsonPath('changed', 2)
            ->assertJsonPath('refused.0.key', 'TST-C1');
        self::assertSame(['high', 'medium', 'low'], TestCase::query()->orderBy('number')->pluck('priority')->all());
        self::assertSame(['old'], $cases[2]->refresh()->labels);
        $this->as($me, 'POST', "/case-acts/{$done->json('act_id')}/undo")->assertConflict();
        $this->as($me, 'POST', '/projects/TST/case-acts', [...$body, 'changes' => ['priority' => 'urgent']])->assertUnprocessable();
        $this->as($me, 'POST', '/projects/TST/case-acts', [
            'act' => 'edit',
            'filter' => ['q' => 'nowhere'],
            'changes' => [],
        ])->assertUnprocessable();
        $this->as($me, 'POST', '/projects/TST/case-acts', [
            'act' => 'edit',
            'filter' => ['q' => 'case'],
            'changes' => ['state' => 'approved'],
        ])
            ->assertOk()
            ->assertJsonPath('changed', 0)
            ->assertJsonCount(3, 'refused');
    }

    public function test_cases_are_moved_to_a_place_in_a_folder(): void
    {
        $me = $this->world->person();
        $folder = $this->as($me, 'POST', '/projects/TST/folders', ['name' => 'Fares'])
            ->assertCreated()
            ->json('id');
        $cases = array_map(fn() => $this->world->case(0), range(1, 4));
        $this->act('move', $cases[3], ['folder_id' => $folder]);
        $this->act('move', $cases[0], ['folder_id' => $folder]);
        $act = $this->as($me, 'POST', '/projects/TST/case-acts', [
            'act' => 'move',
            'filter' => ['ids' => "{$cases[1]->id},{$cases[2]->id}"],
            'changes' => ['folder_id' => $folder, 'before' => $cases[0]->id],
        ])
            ->assertOk()
            ->json('act_id');
        self::assertSame(['TST-C4', 'TST-C2', 'TST-C3', 'TST-C1'], $this->order($folder));
        $this->act('move', $cases[0], ['folder_id' => $folder, 'before' => $cases[3]->id]);
        self::assertSame(['TST-C1', 'TST-C4', 'TST-C2', 'TST-C3'], $this->order($folder));
        $this->as($me, 'POST', "/case-acts/{$act}/undo")->assertJsonPath('changed', 2);
        self::assertSame(['TST-C1', 'TST-C4'], $this->order($folder));
    }

    public function test_copies_stand_for_themselves_also_in_another_project(): void
    {
        $me = $this->world->person();
        $far = new World('FAR');
        $routine = $this->as($me, 'POST', '/projects/TST/routines', ['name' => 'Sign in', 'steps' => [['action' => 'Open']]])->json(
            'routine.id',
        );
        $outer = $this->as($me, 'POST', '/projects/TST/routines', ['name' => 'Begin', 'steps' => [['routine' => $routine]]])->json(
            'routine.id',
        );
        $table = $this->as($me, 'POST', '/projects/TST/data-tables', [
            'name' => 'People',
            'columns' => [['name' => 'user'], ['name' => 'pin', 'secret' => true]],
            'rows' => [['cells' => ['isla', 'kelpie']]],
        ])->json('table.id');
        $folder = $this->as($me, 'POST', '/projects/TST/folders', ['name' => 'Fares'])->json('id');
        $id = $this->as($me, 'POST', '/projects/TST/cases', [
            'title' => 'Original',
            'folder_id' => $folder,
            'table' => $table,
            'steps' => [['routine' => $outer], ['action' => 'Type {{user}}']],
        ])->json('case.id');
        $this->as($me, 'POST', '/projects/TST/case-acts', ['act' => 'copy', 'filter' => ['ids' => $id]])
            ->assertOk()
            ->assertJsonPath('keys', ['TST-C2']);
        $this->as($me, 'GET', '/cases/TST-C2')
            ->assertJsonPath('case.title', 'Original (copy)')
            ->assertJsonPath('case.folder_id', $folder)
            ->assertJsonPath('steps.0.routine', $outer);
        $body = ['act' => 'copy', 'filter' => ['ids' => $id], 'changes' => ['project' => 'FAR']];
        $this->as($me, 'POST', '/projects/TST/case-acts', $body)->assertForbidden();
        Membership::query()->create(['project_id' => $far->project->id, 'user_id' => $me->id, 'role' => Role::Tester]);
        $done = $this->as($me, 'POST', '/projects/TST/case-acts', $body)
            ->assertOk()
            ->assertJsonPath('keys', ['FAR-C1']);
        $copy = $this->as($me, 'GET', '/cases/FAR-C1')
            ->assertJsonPath('folder_path', ['Fares'])
            ->assertJsonPath('routines.0.name', 'Begin')
            ->assertJsonPath('problems', []);
        self::assertSame(
            $far->project->id,
            DB::table('routines')->where('id', $copy->json('steps.0.routine'))->value('project_id'),
            'the copy uses a routine of its own project',
        );
        $this->as($me, 'GET', '/data-tables/' . $copy->json('case.table_id'))
            ->assertJsonPath('rows.0.cells', ['isla', ''])
            ->assertJsonPath('table.columns.1.secret', true);
        $this->as($me, 'POST', '/projects/TST/case-acts', $body)->assertOk();
        self::assertSame(
            2,
            DB::table('routines')->where('project_id', $far->project->id)->count(),
            'those of the same name are taken the second time',
        );
        $this->as($me, 'POST', "/case-acts/{$done->json('act_id')}/undo")->assertOk();
        self::assertNotNull(TestCase::query()->where('key', 'FAR-C1')->firstOrFail()->binned_at);
    }

    public function test_a_template_makes_cases_of_its_own_title(): void
    {
        $me = $this->world->person();
        $id = $this->as($me, 'POST', '/projects/TST/cases', [
            'title' => 'Every form',
            'is_template' => true,
            'steps' => [['action' => 'x']],
        ])->json('case.id');
        $this->as($me, 'POST', '/projects/TST/case-acts', ['act' => 'copy', 'filter' => ['ids' => $id]])->assertJsonPath('keys', [
            'TST-C2',
        ]);
        $this->as($me, 'GET', '/cases/TST-C2')->assertJsonPath('case.title', 'Every form')->assertJsonPath('case.is_template', false);
    }

    public function test_a_binned_case_leaves_everything_and_comes_back_with_its_key_and_links(): void
    {
        $me = $this->world->person();
        $entry = $this->world->entry($me, 1);
        $case = TestCase::query()->findOrFail($entry->case_id);
        $suite = $this->as($me, 'POST', '/projects/TST/suites', ['name' => 'S', 'kind' => 'picked', 'add' => [$case->id]])->json(
            'suite.id',
        );
        $attempt = $this->as($me, 'POST', "/entries/{$entry->id}/attempts")->json('attempt.id');
        $this->act('bin', $case, [], false)
            ->assertJsonPath('changed', 0)
            ->assertJsonPath('refused.0.why', 'It is being walked just now. Bin it afterwards.');
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", ['verdict' => 'pass', 'note' => 'seen'])->assertOk();
        $act = $this->act('bin', $case);
        $this->as($me, 'GET', '/projects/TST/cases')->assertJsonCount(0, 'items');
        $this->as($me, 'GET', '/projects/TST/cases?bin=yes')->assertJsonPath('items.0.key', $case->key);
        $this->as($me, 'GET', "/suites/{$suite}")->assertJsonPath('suite.cases', 0);
        $this->as($me, 'GET', "/entries/{$entry->id}")
            ->assertOk()
            ->assertJsonPath('entry.case_gone', 'in the bin');
        $this->as($me, 'PUT', "/cases/{$case->key}", ['title' => 'x', 'revision' => 2])->assertConflict();
        $this->act('restore', $case);
        $this->as($me, 'GET', "/suites/{$suite}")->assertJsonPath('suite.cases', 1);
        $this->as($me, 'GET', "/cases/{$case->key}")
            ->assertJsonPath('case.binned_at', null)
            ->assertJsonCount(1, 'walks');
        self::assertNotSame('', $act);
    }

    public function test_a_folder_is_named_moved_and_binned_with_what_is_in_it(): void
    {
        $me = $this->world->person();
        [$a, $b, $c] = array_map(
            fn(string $n): string => (string) $this->as($me, 'POST', '/projects/TST/folders', ['name' => $n])->json('id'),
            ['A', 'B', 'C'],
        );
        $this->as($me, 'POST', '/projects/TST/folders', ['name' => ' a '])->assertUnprocessable();
        $this->as($me, 'POST', '/projects/TST/folders', ['name' => ''])->assertUnprocessable();
        $this->as($me, 'PATCH', "/folders/{$b}", ['move' => true, 'parent_id' => $a])
            ->assertOk()
            ->assertJsonPath('parent_id', $a);
        $this->as($me, 'PATCH', "/folders/{$a}", ['move' => true, 'parent_id' => $b])
            ->assertUnprocessable()
            ->assertJsonPath('errors.parent_id.0', 'A folder cannot go into itself.');
        $this->as($me, 'PATCH', "/folders/{$c}", ['move' => true, 'before' => $a])->assertOk();
        self::assertSame(['C', 'A'], Folder::query()->whereNull('parent_id')->orderBy('position')->pluck('name')->all());
        $this->as($me, 'PATCH', "/folders/{$c}", ['name' => 'Sea'])
            ->assertOk()
            ->assertJsonPath('name', 'Sea');
        $case = $this->world->case(0);
        $this->act('move', $case, ['folder_id' => $b]);
        $done = $this->as($me, 'DELETE', "/folders/{$a}")->assertOk();
        self::assertNotNull($case->refresh()->binned_at);
        $this->as($me, 'GET', '/projects/TST/folders')->assertJsonCount(1);
        $this->as($me, 'POST', "/case-acts/{$done->json('act_id')}/undo")->assertOk();
        $this->as($me, 'GET', '/projects/TST/folders')->assertJsonCount(3);
        self::assertNull($case->refresh()->binned_at);
    }

    public function test_questions_and_suggestions_reach_the_author(): void
    {
        $me = $this->world->person();
        $author = $this->world->person('author');
        $case = $this->world->case(2);
        $case->update(['owner_id' => $author->id]);
        $question = $this->as($me, 'POST', "/cases/{$case->key}/messages", ['kind' => 'question', 'step' => 2, 'body' => 'Which day?'])
            ->assertCreated()
            ->json('id');
        $idea = $this->as($me, 'POST', "/cases/{$case->key}/messages", [
            'kind' => 'suggestion',
            'step' => 1,
            'proposal' => ['action' => 'Do 1 well', 'data' => 'data 1', 'expected' => 'See 1'],
        ])
            ->assertCreated()
            ->json('id');
        foreach (
            [
                ['kind' => 'question'],
                ['kind' => 'question', 'step' => 9, 'body' => 'x'],
                ['kind' => 'suggestion', 'proposal' => ['action' => 'x']],
            ]
            as $bad
        ) {
            $this->as($me, 'POST', "/cases/{$case->key}/messages", $bad)->assertUnprocessable();
        }
        $this->as($author, 'GET', '/projects/TST/case-inbox?mine=yes')
            ->assertJsonCount(2, 'messages')
            ->assertJsonPath('messages.0.body', 'Which day?');
        $this->as($me, 'GET', '/projects/TST/case-inbox?mine=yes')->assertJsonCount(0, 'messages');
        $this->as($author, 'POST', "/case-messages/{$question}/answers", ['as' => 'answered'])->assertUnprocessable();
        $this->as($author, 'POST', "/case-messages/{$question}/answers", ['as' => 'answered', 'answer' => 'Monday'])
            ->assertOk()
            ->assertJsonPath('state', 'answered');
        $this->as($author, 'POST', "/case-messages/{$idea}/answers", ['as' => 'taken'])
            ->assertOk()
            ->assertJsonPath('state', 'taken');
        $this->as($author, 'POST', "/case-messages/{$idea}/answers", ['as' => 'taken'])->assertConflict();
        $this->as($me, 'GET', "/cases/{$case->key}")
            ->assertJsonPath('steps.0.action', 'Do 1 well')
            ->assertJsonPath('version', 2)
            ->assertJsonPath('messages.0.answered_by.name', 'Author');
        $gone = $this->as($me, 'POST', "/cases/{$case->key}/messages", [
            'kind' => 'suggestion',
            'step' => 2,
            'proposal' => ['action' => 'x'],
        ])->json('id');
        $this->as($author, 'PUT', "/cases/{$case->key}", [
            'title' => 'Case 1',
            'steps' => [['action' => 'Only one']],
            'revision' => 2,
        ])->assertOk();
        $this->as($author, 'POST', "/case-messages/{$gone}/answers", ['as' => 'taken'])->assertConflict();
        $this->as($author, 'POST', "/case-messages/{$gone}/answers", ['as' => 'declined', 'answer' => 'The step is gone'])->assertOk();
    }

    public function test_lists_are_edited_and_what_is_in_use_stays(): void
    {
        $lead = $this->world->lead();
        $me = $this->world->person();
        $this->as($me, 'POST', '/projects/TST/cases', [
            'title' => 'x',
            'type' => 'security',
            'priority' => 'low',
            'labels' => ['old', 'tide'],
        ])->assertCreated();
        $setup = $this->as($lead, 'GET', '/projects/TST/lists')->assertOk();
        $types = (array) $setup->json('types');
        $this->as($lead, 'PUT', '/projects/TST/lists/types', [
            'items' => array_values(array_filter($types, static fn(array $t): bool => $t['value'] !== 'security')),
        ])
            ->assertConflict()
            ->assertJsonPath('used', ['security' => 1]);
        $this->as($lead, 'PUT', '/projects/TST/lists/types', ['items' => [['name' => 'Tide'], ['value' => 'security', 'name' => 'Safety']]])
            ->assertOk()
            ->assertJsonPath('types.0.value', 'tide')
            ->assertJsonPath('types.1', ['value' => 'security', 'name' => 'Safety', 'weight' => 1, 'uses' => 1]);
        $this->as($lead, 'PUT', '/projects/TST/lists/types', ['items' => [['name' => 'a'], ['name' => 'A']]])->assertUnprocessable();
        $this->as($lead, 'PUT', '/projects/TST/lists/priorities', [
            'items' => [['value' => 'low', 'name' => 'Low', 'weight' => 1], ['name' => 'Now', 'weight' => 20]],
        ])->assertOk();
        self::assertSame(1, TestCase::query()->firstOrFail()->priority_rank);
        $this->as($lead, 'PATCH', '/projects/TST/labels', ['from' => 'old', 'to' => 'Tide'])->assertOk();
        self::assertSame(['tide'], TestCase::query()->firstOrFail()->labels);
        $many = array_map(static fn(int $i): string => "label {$i}", range(1, 5000));
        $this->as($me, 'POST', '/projects/TST/labels', ['names' => $many])
            ->assertOk()
            ->assertJsonCount(5001, 'labels');
        $this->as($me, 'POST', '/projects/TST/labels', [
            'names' => array_map(static fn(int $i): string => "more {$i}", range(1, 6000)),
        ])->assertUnprocessable();
        $this->as($me, 'POST', '/projects/TST/labels', ['names' => [str_repeat('x', 61)]])->assertUnprocessable();
        $field = $this->as($lead, 'PUT', '/projects/TST/lists/fields', ['fields' => [['name' => 'Risk', 'kind' => 'number']]])->json(
            'fields.0.id',
        );
        $this->as($me, 'POST', '/projects/TST/cases', [
            'title' => 'y',
            'priority' => 'low',
            'type' => 'tide',
            'custom' => [$field => 'many'],
        ])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ["custom.{$field}"]]);
        $this->as($me, 'POST', '/projects/TST/cases', [
            'title' => 'y',
            'priority' => 'low',
            'type' => 'tide',
            'custom' => [$field => '2,5'],
        ])
            ->assertCreated()
            ->assertJsonPath("case.custom.{$field}", '2.5');
        $this->as($lead, 'PUT', '/projects/TST/lists/fields', ['fields' => []])->assertConflict();
        $this->as($lead, 'PUT', '/projects/TST/lists/fields', [
            'fields' => [['id' => $field, 'name' => 'Risk', 'kind' => 'text']],
        ])->assertUnprocessable();
        $this->as($lead, 'PUT', '/projects/TST/lists/fields', [
            'fields' => [['id' => $field, 'name' => 'Danger', 'kind' => 'number', 'required' => true]],
        ])->assertOk();
    }

    /**
     * @param  array<string, mixed>  $changes
     *
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function act(string $act, TestCase $case, array $changes = [], bool $works = true): \Illuminate\Testing\TestResponse
    {
        $answer = $this->as($this->world->person(), 'POST', '/projects/TST/case-acts', [
            'act' => $act,
            'filter' => ['ids' => $case->id],
            'changes' => $changes,
        ])->assertOk();

        return $works ? $answer->assertJsonPath('changed', 1) : $answer;
    }

    /**
     * @return list<string>
     */
    private function order(string $folder): array
    {
        return array_column((array) $this->as($this->world->person(), 'GET', "/projects/TST/cases?folder={$folder}")->json('items'), 'key');
    }
}
