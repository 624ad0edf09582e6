<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use PHPUnit\Framework\Attributes\DataProvider;

final class WriteTest extends FeatureTestCase
{
    public function test_a_label_keeps_its_comma_on_every_way(): void
    {
        $lead = $this->world->lead();
        $label = 'deck, car; "the Tide"';
        $typed = ['title' => 'x', 'priority' => 'low', 'labels' => [$label, 'old']];
        $key = $this->as($lead, 'POST', '/projects/TST/cases', $typed)->assertCreated()->json('case.key');
        $listed = $this->as($lead, 'POST', '/projects/TST/labels', ['names' => ["pier,  north\n"]])->assertOk();
        self::assertContains('pier, north', array_column((array) $listed->json('labels'), 'name'));
        $this->as($lead, 'PATCH', '/projects/TST/labels', ['from' => 'old', 'to' => 'New, newer'])->assertOk();
        $this->as($lead, 'POST', '/projects/TST/case-acts', [
            'act' => 'edit',
            'filter' => ['label' => '"deck, car; ""the Tide"""'],
            'changes' => ['labels_add' => ['a, b'], 'labels_remove' => ['new, NEWER']],
        ])
            ->assertOk()
            ->assertJsonPath('changed', 1);
        $this->as($lead, 'GET', "/cases/{$key}")
            ->assertOk()
            ->assertJsonPath('case.labels', [$label, 'a, b']);
        $this->as($lead, 'GET', "/cases/{$key}/history")
            ->assertOk()
            ->assertJsonPath('log.0.changes.0.to', '"deck, car; ""the Tide""", "a, b"');
    }

    public function test_a_case_is_made_and_saved_and_every_save_is_kept(): void
    {
        $me = $this->world->person();
        $made = $this->as($me, 'POST', '/projects/TST/cases', [
            'title' => "  Book   one adult \n",
            'objective' => '**Short**',
            'priority' => 'high',
            'estimate' => '4m',
            'labels' => ['smoke', 'Booking', 'smoke '],
            'steps' => [['action' => ' Open', 'expected' => 'It opens'], ['action' => 'Pay', 'data' => '12.40'], ['action' => '']],
        ])
            ->assertCreated()
            ->assertJsonPath('case.key', 'TST-C1')
            ->assertJsonPath('case.title', 'Book one adult')
            ->assertJsonPath('case.steps', 2)
            ->assertJsonPath('case.revision', 1);
        $key = $made->json('case.key');
        $case = $this->as($me, 'GET', "/cases/{$key}")
            ->assertOk()
            ->assertHeader('ETag', '"1"')
            ->assertJsonPath('case.labels', ['smoke', 'Booking'])
            ->assertJsonPath('case.owner.id', $me->id)
            ->assertJsonPath('case.estimate_seconds', 240);
        $steps = [['action' => 'Open slowly', 'expected' => 'It opens'], ...array_slice((array) $case->json('steps'), 1)];
        $this->as($me, 'PUT', "/cases/{$key}", [
            'title' => 'Book one adult',
            'objective' => '**Short**',
            'steps' => $steps,
            'revision' => 1,
        ])
            ->assertOk()
            ->assertJsonPath('version', 2)
            ->assertJsonPath('text_changed', true)
            ->assertHeader('ETag', '"2"');
        $this->as(
            $me,
            'PUT',
            "/cases/{$key}",
            ['title' => 'Book one adult', 'objective' => '**Short**', 'steps' => $steps, 'priority' => 'low', 'labels' => ['SMOKE']],
            ['If-Match' => '"2"'],
        )
            ->assertOk()
            ->assertJsonPath('version', 2)
            ->assertJsonPath('text_changed', false)
            ->assertJsonPath('case.labels', ['smoke']);
        $this->as($me, 'PUT', "/cases/{$key}", ['title' => 'x'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['revision']]);
        $history = $this->as($me, 'GET', "/cases/{$key}/history")
            ->assertOk()
            ->assertJsonCount(2, 'versions');
        self::assertSame(['edited', 'edited', 'made'], array_column((array) $history->json('log'), 'kind'));
        $history->assertJsonPath('log.0.changes', [
            ['field' => 'labels', 'from' => 'smoke, Booking', 'to' => 'smoke'],
            ['field' => 'priority', 'from' => 'high', 'to' => 'low'],
        ]);
        $this->as($me, 'GET', "/cases/{$key}/comparison?from=1&to=2")
            ->assertJsonPath('steps.0.is', 'changed')
            ->assertJsonPath('steps.0.fields.0.parts', [['kind' => 'same', 'text' => 'Open'], ['kind' => 'added', 'text' => ' slowly']])
            ->assertJsonPath('steps.1.is', 'same');
        $this->as($me, 'GET', "/cases/{$key}/comparison?from=1&to=9")->assertNotFound();
        $this->as($me, 'POST', "/cases/{$key}/restorations", ['version' => 1])
            ->assertOk()
            ->assertJsonPath('version', 3);
        $this->as($me, 'GET', "/cases/{$key}")
            ->assertJsonPath('steps.0.action', 'Open')
            ->assertJsonPath('case.priority', 'low');
        $this->as($me, 'POST', "/cases/{$key}/restorations", ['version' => 12])->assertUnprocessable();
    }

    public function test_nothing_changed_makes_no_version_and_no_line_in_the_log(): void
    {
        $me = $this->world->person();
        $case = $this->world->case(2);
        $now = $this->as($me, 'GET', "/cases/{$case->key}");
        $this->as($me, 'PUT', "/cases/{$case->key}", ['title' => 'Case 1', 'steps' => $now->json('steps'), 'revision' => 1])
            ->assertOk()
            ->assertJsonPath('version', 1)
            ->assertJsonPath('case.revision', 1);
        self::assertSame(0, DB::table('case_log')->count());
    }

    public function test_two_saves_meet_and_nothing_of_either_is_lost(): void
    {
        $me = $this->world->person();
        $other = $this->world->person('other');
        $case = $this->world->case(3);
        $steps = (array) $this->as($me, 'GET', "/cases/{$case->key}")->json('steps');
        $theirs = $steps;
        $theirs[0]['action'] = 'Do 1, as they say';
        $this->as($other, 'PUT', "/cases/{$case->key}", ['title' => 'Case 1', 'steps' => $theirs, 'revision' => 1])->assertOk();
        $mine = $steps;
        $mine[2]['expected'] = 'See 3, as I say';
        $mine[] = ['action' => 'One more'];
        $body = ['title' => 'My title', 'steps' => $mine, 'revision' => 1, 'version' => 1];
        $this->as($me, 'PUT', "/cases/{$case->key}", $body)
            ->assertStatus(412)
            ->assertJsonPath('type', 'urn:lucid-step:problem:saved-meanwhile')
            ->assertJsonPath('revision', 2);
        $merge = $this->as($me, 'POST', "/cases/{$case->key}/merges", $body)
            ->assertOk()
            ->assertJsonPath('conflicts', 0)
            ->assertJsonPath('by', 'Other');
        $result = array_values(array_filter(array_column((array) $merge->json('steps'), 'result')));
        self::assertSame(['Do 1, as they say', 'Do 2', 'Do 3', 'One more'], array_column($result, 'action'));
        self::assertSame('See 3, as I say', $result[2]['expected']);
        $this->as($me, 'PUT', "/cases/{$case->key}", ['title' => 'My title', 'steps' => $result, 'revision' => 2])
            ->assertOk()
            ->assertJsonPath('version', 3);
        $mine[0]['action'] = 'Do 1 my own way';
        $this->as($me, 'POST', "/cases/{$case->key}/merges", [...$body, 'steps' => $mine])
            ->assertJsonPath('conflicts', 1)
            ->assertJsonPath('steps.0.outcome', 'conflict');
    }

    /**
     * @return iterable<string, array{array<string, mixed>, string}>
     */
    public static function badInput(): iterable
    {
        $id = (string) Str::uuid7();
        yield 'no title' => [['title' => ''], 'title'];
        yield 'a title of 3,000 characters' => [['title' => str_repeat('x', 3000)], 'title'];
        yield 'too many steps' => [['steps' => array_fill(0, 501, ['action' => 'x'])], 'steps'];
        yield 'a step too long' => [['steps' => [['action' => str_repeat('x', 20001)]]], 'steps.0.action'];
        yield 'a routine that is not there' => [['steps' => [['action' => ''], ['routine' => $id]]], 'steps.1.routine'];
        yield 'a table that is not there' => [['table' => $id], 'table'];
        yield 'a picture that is not there' => [
            ['steps' => [['action' => 'x', 'files' => [['sha256' => str_repeat('a', 64), 'name' => 'x']]]]],
            'steps.0.files',
        ];
        yield 'an estimate' => [['estimate' => 'soon'], 'estimate'];
        yield 'a type' => [['type' => 'weird'], 'type'];
        yield 'a priority' => [['priority' => 'urgent'], 'priority'];
        yield 'an owner' => [['owner_id' => $id], 'owner_id'];
        yield 'a folder' => [['folder_id' => $id], 'folder_id'];
        yield 'labels' => [['labels' => range(1, 51)], 'labels'];
        yield 'a requirement' => [['requirements' => [$id]], 'requirements'];
    }

    /**
     * @param  array<string, mixed>  $body
     */
    #[DataProvider('badInput')]
    public function test_bad_input_is_refused_by_field(array $body, string $field): void
    {
        $errors = (array) $this->as($this->world->person(), 'POST', '/projects/TST/cases', ['title' => 'A title', ...$body])
            ->assertUnprocessable()
            ->json('errors');
        self::assertArrayHasKey($field, $errors);
        self::assertSame(0, TestCase::query()->count());
    }

    public function test_script_in_every_text_is_kept_as_text(): void
    {
        $me = $this->world->person();
        $evil = '<script>alert(1)</script>{{x}} \u0001';
        $key = $this->as($me, 'POST', '/projects/TST/cases', [
            'title' => $evil,
            'objective' => $evil,
            'labels' => [$evil],
            'steps' => [['action' => $evil, 'data' => $evil, 'expected' => $evil]],
        ])
            ->assertCreated()
            ->json('case.key');
        $this->as($me, 'GET', "/cases/{$key}")
            ->assertJsonPath('steps.0.action', $evil)
            ->assertJsonPath('problems.0.severity', 'error');
    }

    public function test_reference_pictures_are_kept_by_their_content_and_only_for_the_project(): void
    {
        $me = $this->world->person();
        $picture = UploadedFile::fake()->image('seen.png', 40, 30);
        $file = $this->actingAs($me)
            ->post('/api/v1/projects/TST/files', ['file' => $picture, 'name' => 'seen.png'], ['Accept' => 'application/json'])
            ->assertCreated()
            ->json();
        $ref = ['sha256' => $file['sha256'], 'name' => 'seen.png'];
        $key = $this->as($me, 'POST', '/projects/TST/cases', [
            'title' => 'With a picture',
            'steps' => [['action' => 'Look', 'files' => [$ref]]],
            'files' => [$ref],
        ])
            ->assertCreated()
            ->json('case.key');
        $this->as($me, 'GET', "/cases/{$key}")
            ->assertJsonPath('steps.0.files', [$ref])
            ->assertJsonPath('files', [$ref]);
        $this->as($me, 'GET', "/projects/TST/files/{$file['sha256']}")
            ->assertOk()
            ->assertHeader('Content-Type', 'image/png');
        $this->as($me, 'GET', "/projects/TST/files/{$file['sha256']}/thumbnail")->assertOk();
        $this->as($me, 'GET', '/projects/TST/files/' . str_repeat('b', 64))->assertNotFound();
        $far = new \LucidStep\Tests\Support\World('FAR');
        $this->as($far->person(), 'GET', "/projects/FAR/files/{$file['sha256']}")->assertNotFound();
    }

    public function test_a_case_is_asked_for_approved_or_returned_with_a_comment(): void
    {
        $me = $this->world->person();
        $lead = $this->world->lead();
        $case = $this->world->case(1);
        $this->as($me, 'POST', "/cases/{$case->key}/reviews", ['act' => 'ask', 'comment' => 'Please look'])
            ->assertOk()
            ->assertJsonPath('case.state', 'in_review');
        $this->as($me, 'POST', "/cases/{$case->key}/reviews", ['act' => 'approve'])->assertForbidden();
        $this->as($me, 'POST', "/cases/{$case->key}/reviews", ['act' => 'ask'])->assertConflict();
        self::assertNull($case->refresh()->approved_version_id, 'asking twice approves nothing');
        $this->as($lead, 'POST', "/cases/{$case->key}/reviews", ['act' => 'return'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['comment']]);
        $this->as($lead, 'POST', "/cases/{$case->key}/reviews", ['act' => 'return', 'comment' => 'Say which day'])
            ->assertOk()
            ->assertJsonPath('case.state', 'draft');
        $this->as($me, 'GET', "/cases/{$case->key}")
            ->assertJsonPath('review.kind', 'returned')
            ->assertJsonPath('review.comment', 'Say which day');
        $this->as($me, 'GET', '/projects/TST/case-inbox')->assertJsonPath('returned.0.key', $case->key);
        $this->as($lead, 'POST', "/cases/{$case->key}/reviews", ['act' => 'return', 'comment' => 'x'])->assertConflict();
        $this->as($lead, 'POST', "/cases/{$case->key}/reviews", ['act' => 'approve'])
            ->assertOk()
            ->assertJsonPath('case.state', 'approved');
        $this->as($lead, 'POST', "/cases/{$case->key}/reviews", ['act' => 'approve'])->assertConflict();
        self::assertSame($case->refresh()->version_id, $case->approved_version_id);
    }

    public function test_a_case_that_would_fail_in_the_walk_is_not_approved(): void
    {
        $case = $this->world->case(0);
        $lead = $this->world->lead();
        $this->as($lead, 'PUT', "/cases/{$case->key}", ['title' => 'Case 1', 'steps' => [['action' => 'Type {{who}}']], 'revision' => 1])
            ->assertOk()
            ->assertJsonPath('problems.0.step', 1);
        $this->as($lead, 'POST', "/cases/{$case->key}/reviews", ['act' => 'approve'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['steps']]);
    }

    public function test_with_the_policy_an_edited_approved_case_goes_back_to_review_and_its_approved_version_stays(): void
    {
        $this->world->policies(['only_approved_cases' => true]);
        $lead = $this->world->lead();
        $case = $this->world->case(1);
        $this->as($lead, 'POST', "/cases/{$case->key}/reviews", ['act' => 'approve'])->assertOk();
        $approved = $case->refresh()->approved_version_id;
        $this->as($lead, 'PUT', "/cases/{$case->key}", ['title' => 'Case 1, better', 'steps' => [['action' => 'Do']], 'revision' => 2])
            ->assertOk()
            ->assertJsonPath('case.state', 'in_review');
        self::assertSame($approved, $case->refresh()->approved_version_id);
        self::assertNotSame($approved, $case->version_id);
        self::assertNotNull(CaseVersion::query()->find($approved));
    }

    public function test_who_else_writes_is_told(): void
    {
        $case = $this->world->case(1);
        [$me, $other] = [$this->world->person(), $this->world->person('other')];
        $this->as($other, 'PUT', "/cases/{$case->key}/presence")
            ->assertOk()
            ->assertJsonCount(0, 'others');
        $this->as($me, 'PUT', "/cases/{$case->key}/presence")->assertJsonPath('others.0.name', 'Other');
        $this->travel(60)->seconds();
        $this->as($me, 'GET', "/cases/{$case->key}")->assertJsonCount(0, 'others');
        $this->as($this->world->person('reader', Role::Reader), 'PUT', "/cases/{$case->key}/presence")->assertOk();
        $this->as($me, 'GET', "/cases/{$case->key}")->assertJsonCount(0, 'others');
    }

    public function test_readers_read_and_others_find_nothing(): void
    {
        $case = $this->world->case(1);
        $reader = $this->world->person('reader', Role::Reader);
        $this->as($reader, 'GET', "/cases/{$case->key}")
            ->assertOk()
            ->assertJsonPath('may_write', false);
        foreach (
            [
                ['PUT', "/cases/{$case->key}", ['title' => 'x', 'revision' => 1]],
                ['POST', '/projects/TST/cases', ['title' => 'x']],
                ['POST', "/cases/{$case->key}/restorations", ['version' => 1]],
                ['POST', "/cases/{$case->key}/reviews", ['act' => 'ask']],
                ['POST', '/projects/TST/case-acts', ['act' => 'bin', 'filter' => ['q' => 'x']]],
                ['POST', '/projects/TST/folders', ['name' => 'x']],
                ['POST', '/projects/TST/routines', ['name' => 'x']],
                ['POST', '/projects/TST/data-tables', ['name' => 'x', 'columns' => [['name' => 'a']]]],
                ['POST', '/projects/TST/suites', ['name' => 'x']],
                ['PUT', '/projects/TST/lists/types', ['items' => [['name' => 'x']]]],
                ['POST', "/cases/{$case->key}/messages", ['kind' => 'question', 'body' => 'x']],
            ]
            as [$method, $path, $body]
        ) {
            $this->as($reader, $method, $path, $body)->assertForbidden();
        }
        $far = new \LucidStep\Tests\Support\World('FAR');
        $this->as($far->person(), 'GET', "/cases/{$case->key}")->assertNotFound();
    }

    public function test_opening_and_saving_take_no_more_queries_for_more_steps(): void
    {
        $me = $this->world->person();
        // What is secret in a project is put together once.
        $this->as($me, 'POST', '/projects/TST/cases', ['title' => 'First'])->assertCreated();
        $counts = [];
        foreach ([2, 60] as $n) {
            $case = $this->world->case($n);
            $open = $this->queries(fn() => $this->as($me, 'GET', "/cases/{$case->key}"));
            $steps = array_map(static fn(int $i): array => ['action' => "Done {$i}"], range(1, $n));
            $save = $this->queries(
                fn() => $this->as($me, 'PUT', "/cases/{$case->key}", [
                    'title' => 'Changed',
                    'steps' => $steps,
                    'revision' => 1,
                ])->assertOk(),
            );
            $counts[] = [$open, $save];
        }
        self::assertSame($counts[0], $counts[1]);
        self::assertLessThanOrEqual(24, $counts[0][0]);
        self::assertLessThanOrEqual(40, $counts[0][1]);
    }
}
