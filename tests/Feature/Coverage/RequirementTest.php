<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Coverage;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\World;

/**
 * Requirements are written, moved in their tree, linked, dropped and confirmed, with a history that says who did what.
 */
final class RequirementTest extends FeatureTestCase
{
    private User $lead;

    protected function setUp(): void
    {
        parent::setUp();
        $this->lead = $this->world->lead();
    }

    public function test_one_is_written_changed_and_two_who_change_it_meet(): void
    {
        $one = $this->make('Fares follow age', ['text' => "From **16** on\nfull fare", 'external_id' => 'F-1']);
        $this->as($this->lead, 'PUT', "/requirements/{$one['key']}", ['title' => 'Fares', 'text' => 'All of it', 'revision' => 1])
            ->assertOk()
            ->assertJsonPath('revision', 2)
            ->assertJsonPath('external_id', null)
            ->assertJsonPath('history.0.kind', 'changed')
            ->assertJsonPath('history.0.changes.0', ['field' => 'title', 'from' => 'Fares follow age', 'to' => 'Fares']);
        $late = ['title' => 'Mine', 'revision' => 1];
        $this->as($this->lead, 'PUT', "/requirements/{$one['key']}", $late)
            ->assertStatus(412)
            ->assertJsonPath('type', 'urn:lucid-step:problem:saved-meanwhile')
            ->assertJsonPath('revision', 2);
        $this->as($this->lead, 'PUT', "/requirements/{$one['key']}", ['title' => 'Mine'])->assertUnprocessable();
        $this->as($this->lead, 'PUT', "/requirements/{$one['key']}", ['title' => 'Fares', 'text' => 'All of it', 'revision' => 2])
            ->assertOk()
            ->assertJsonPath('revision', 2);
    }

    public function test_what_is_wrong_is_said_by_field(): void
    {
        $this->make('One', ['external_id' => 'F-1']);
        $this->as($this->lead, 'POST', '/projects/TST/requirements', ['title' => '  '])
            ->assertUnprocessable()
            ->assertJsonPath('errors.title.0', 'Say what must hold.');
        $this->as($this->lead, 'POST', '/projects/TST/requirements', ['title' => 'Two', 'external_id' => 'F-1'])
            ->assertUnprocessable()
            ->assertJsonPath('errors.external_id.0', 'Another requirement has this identifier.');
        $gone = '01a22de6-a106-70fb-8a60-debc79a517f5';
        $this->as($this->lead, 'POST', '/projects/TST/requirements', ['title' => 'Two', 'parent_id' => $gone])
            ->assertUnprocessable()
            ->assertJsonPath('errors.parent_id.0', 'This requirement is not there any more.');
        self::assertSame(1, DB::table('requirements')->count());
    }

    public function test_it_moves_with_all_below_it_and_never_below_itself(): void
    {
        [$a, $b, $c] = [$this->make('A'), $this->make('B'), $this->make('C')];
        $this->move($b, $a['id'])->assertOk()->assertJsonPath('above.0.key', $a['key']);
        $this->move($c, $b['id'])->assertOk();
        $this->move($a, $c['id'])->assertUnprocessable()->assertJsonPath('errors.parent_id.0', 'A requirement cannot stand below itself.');
        $this->move($a, $a['id'])->assertUnprocessable();
        self::assertSame(['A', 'B', 'C'], $this->titles());
        $d = $this->make('D');
        $this->move($d, $a['id'], $b['id'])->assertOk();
        self::assertSame(['A', 'D', 'B', 'C'], $this->titles(), 'in front of B');
        $this->move($b, null)->assertOk();
        self::assertSame(['A', 'D', 'B', 'C'], $this->titles(), 'last on top, with what is below it');
        // The database refuses a loop too, whoever writes it.
        $this->expectExceptionMessage('cannot stand below itself');
        DB::table('requirements')
            ->where('id', $b['id'])
            ->update(['parent_id' => $c['id']]);
    }

    public function test_a_tree_has_a_depth(): void
    {
        $parent = null;
        for ($i = 1; $i <= 30; $i++) {
            $parent = $this->make("Level {$i}", ['parent_id' => $parent])['id'];
        }
        $this->as($this->lead, 'POST', '/projects/TST/requirements', ['title' => 'Too deep', 'parent_id' => $parent])
            ->assertUnprocessable()
            ->assertJsonPath('errors.parent_id.0', 'At most 30 requirements stand one below the other.');
        $pair = $this->make('Pair');
        $this->make('Below it', ['parent_id' => $pair['id']]);
        $level = DB::table('requirements')->where('title', 'Level 29')->value('id');
        $this->move($pair, $level)->assertUnprocessable();
    }

    public function test_one_is_dropped_and_taken_up_again(): void
    {
        $a = $this->make('A');
        $b = $this->make('B', ['parent_id' => $a['id']]);
        $this->as($this->lead, 'DELETE', "/requirements/{$a['id']}")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:requirement-has-others-below');
        $this->as($this->lead, 'DELETE', "/requirements/{$b['id']}")
            ->assertOk()
            ->assertJsonPath('dropped', true);
        $this->as($this->lead, 'DELETE', "/requirements/{$a['id']}")->assertOk();
        self::assertSame([], $this->titles());
        $this->as($this->lead, 'POST', "/requirements/{$b['id']}/restorations")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:requirement-below-dropped');
        $this->as($this->lead, 'POST', "/requirements/{$a['id']}/restorations")->assertOk();
        $this->as($this->lead, 'POST', "/requirements/{$b['id']}/restorations")->assertOk();
        self::assertSame(['A', 'B'], $this->titles());
        $kinds = array_column((array) $this->as($this->lead, 'GET', "/requirements/{$b['id']}")->json('history'), 'kind');
        self::assertSame(['restored', 'dropped', 'made'], $kinds);
    }

    public function test_when_its_words_change_its_cases_are_to_be_looked_at_until_somebody_confirms_each(): void
    {
        $one = $this->make('Fares follow age');
        [$first, $second] = [$this->world->case(), $this->world->case()];
        $this->link($one['id'], [$first, $second]);
        self::assertSame(0, $this->row($one['key'])['to_look_at']);
        $this->change($one['key'], 1, ['title' => 'Fares  follow AGE'])->assertJsonPath('cases.0.to_look_at', false);
        $this->change($one['key'], 2, ['title' => 'Fares follow age', 'external_id' => 'F-1'])->assertJsonPath('cases.0.to_look_at', false);
        $this->change($one['key'], 3, ['title' => 'Fares follow age and group'])->assertJsonPath('cases.0.to_look_at', true);
        self::assertSame(2, $this->row($one['key'])['to_look_at']);
        $third = $this->world->case();
        $this->link($one['id'], [$third]);
        self::assertSame(2, $this->row($one['key'])['to_look_at'], 'who links now has seen the words');
        $this->as($this->lead, 'POST', "/requirements/{$one['key']}/confirmations", ['cases' => [$first->id]])
            ->assertOk()
            ->assertJsonPath('cases.0.to_look_at', false)
            ->assertJsonPath('cases.1.to_look_at', true)
            ->assertJsonPath('history.0.changes.0.to', $first->key);
        $this->as($this->lead, 'POST', "/requirements/{$one['key']}/confirmations")->assertOk();
        self::assertSame(0, $this->row($one['key'])['to_look_at']);
    }

    public function test_links_from_either_side_stand_in_its_history_and_are_undone_as_one(): void
    {
        $one = $this->make('Fares');
        [$first, $second] = [$this->world->case(), $this->world->case()];
        $act = $this->link($one['id'], [$first, $second]);
        $this->as($this->lead, 'PUT', "/cases/{$first->key}", [
            'title' => $first->title,
            'requirements' => [],
            'revision' => 2,
        ])->assertOk();
        $history = (array) $this->as($this->lead, 'GET', "/requirements/{$one['key']}")->json('history');
        self::assertSame(['parted', 'linked', 'made'], array_column($history, 'kind'), 'what was linked together is one line');
        self::assertSame("{$first->key}, {$second->key}", $history[1]['changes'][0]['to']);
        self::assertStringContainsString($first->key, $history[0]['changes'][0]['from']);
        $this->as($this->lead, 'POST', '/projects/TST/case-acts', [
            'act' => 'edit',
            'filter' => ['ids' => $second->id],
            'changes' => ['requirements_remove' => [$one['id']]],
        ])->assertOk();
        $this->as($this->lead, 'GET', "/requirements/{$one['key']}")->assertJsonCount(0, 'cases');
        self::assertNotSame('', $act);
        self::assertSame(2, DB::table('requirement_links')->whereNotNull('parted_at')->count());
    }

    public function test_who_may_not_write_cases_writes_no_requirements_and_another_project_sees_none(): void
    {
        $one = $this->make('Fares');
        $tester = $this->world->person('tess');
        $this->world->project->update(['access' => ['testers_write_cases' => false]]);
        $this->as($tester, 'POST', '/projects/TST/requirements', ['title' => 'Mine'])->assertForbidden();
        $this->as($tester, 'PUT', "/requirements/{$one['key']}", ['title' => 'Mine', 'revision' => 1])->assertForbidden();
        $this->move($one, null, null, $tester)->assertForbidden();
        $this->as($this->world->person('reader', Role::Reader), 'GET', "/requirements/{$one['key']}")->assertOk();
        $stranger = (new World('OTH'))->person('stranger');
        $this->as($stranger, 'GET', "/requirements/{$one['key']}")->assertNotFound();
        $this->as($stranger, 'GET', '/projects/TST/coverage')->assertNotFound();
    }

    /**
     * @param  array<string, mixed>  $more
     *
     * @return array<string, mixed>
     */
    private function make(string $title, array $more = []): array
    {
        return (array) $this->as($this->lead, 'POST', '/projects/TST/requirements', ['title' => $title, ...$more])
            ->assertCreated()
            ->json();
    }

    /**
     * @param  array<string, mixed>  $requirement
     *
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function move(array $requirement, ?string $parent, ?string $before = null, ?User $by = null): \Illuminate\Testing\TestResponse
    {
        $to = ['parent_id' => $parent, 'before_id' => $before];

        return $this->as($by ?? $this->lead, 'POST', "/requirements/{$requirement['id']}/moves", $to);
    }

    /**
     * @param  array<string, mixed>  $words
     *
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function change(string $key, int $revision, array $words): \Illuminate\Testing\TestResponse
    {
        return $this->as($this->lead, 'PUT', "/requirements/{$key}", [...$words, 'revision' => $revision])->assertOk();
    }

    /**
     * @param  list<TestCase>  $cases
     */
    private function link(string $requirement, array $cases): string
    {
        return (string) $this->as($this->lead, 'POST', '/projects/TST/case-acts', [
            'act' => 'edit',
            'filter' => ['ids' => implode(',', array_map(static fn(TestCase $c): string => $c->id, $cases))],
            'changes' => ['requirements_add' => [$requirement]],
        ])
            ->assertOk()
            ->json('act_id');
    }

    /**
     * @return list<string> in the order of the tree
     */
    private function titles(): array
    {
        return array_column((array) $this->as($this->lead, 'GET', '/projects/TST/coverage')->assertOk()->json('rows'), 'title');
    }

    /**
     * @return array<string, mixed>
     */
    private function row(string $key): array
    {
        $rows = (array) $this->as($this->lead, 'GET', '/projects/TST/coverage')->assertOk()->json('rows');

        return array_column($rows, null, 'key')[$key];
    }
}
