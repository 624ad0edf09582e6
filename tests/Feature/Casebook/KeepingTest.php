<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use LucidStep\App\Models\CaseImport;
use LucidStep\App\Models\JobState;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

final class KeepingTest extends FeatureTestCase
{
    public function test_files_of_imports_and_exports_go_after_a_week(): void
    {
        $me = $this->world->person();
        $this->world->case(1);
        $this->as($me, 'POST', '/projects/TST/case-exports', ['format' => 'csv'])->assertCreated();
        Storage::put('imports/left.csv', 'title');
        CaseImport::query()->create([
            'project_id' => $this->world->project->id,
            'author_id' => $me->id,
            'name' => 'left.csv',
            'state' => 'ready',
            'format' => 'csv',
            'path' => 'imports/left.csv',
            'created_at' => now(),
        ]);
        Artisan::call('lucid:tidy');
        self::assertCount(2, [...Storage::files('imports'), ...Storage::files('exports')]);
        $this->travel(8)->days();
        Artisan::call('lucid:tidy');
        self::assertSame([], [...Storage::files('imports'), ...Storage::files('exports')]);
        self::assertSame(JobState::Cancelled, CaseImport::query()->firstOrFail()->state);
    }

    public function test_the_log_of_a_case_cannot_be_rewritten(): void
    {
        $this->as($this->world->person(), 'POST', '/projects/TST/cases', ['title' => 'x'])->assertCreated();
        self::becomeOwner();
        $this->expectExceptionMessage('append-only');
        DB::table('case_log')->update(['kind' => 'other']);
    }

    public function test_a_token_is_written_once_a_minute(): void
    {
        $me = $this->world->person();
        $token = $me->createToken('program')->plainTextToken;
        $ask = function () use ($token): int {
            $this->app?->make('auth')->forgetGuards();
            DB::flushQueryLog();
            DB::enableQueryLog();
            $this->getJson('/api/v1/projects/TST/folders', ['Authorization' => "Bearer {$token}"])->assertOk();

            return count(
                array_filter(
                    DB::getQueryLog(),
                    static fn(array $q): bool => str_starts_with($q['query'], 'update "personal_access_tokens"'),
                ),
            );
        };
        self::assertSame([1, 0, 0], [$ask(), $ask(), $ask()]);
        $this->travel(61)->seconds();
        self::assertSame(1, $ask());
    }

    public function test_a_developer_asks_but_does_not_write(): void
    {
        $developer = $this->world->person('developer', Role::Developer);
        $case = $this->world->case(1);
        $this->as($developer, 'POST', "/cases/{$case->key}/messages", ['kind' => 'question', 'body' => 'Which day?'])->assertCreated();
        $this->as($developer, 'PUT', "/cases/{$case->key}", ['title' => 'x', 'revision' => 1])->assertForbidden();
        $this->as($developer, 'GET', '/projects/TST/casebook')
            ->assertOk()
            ->assertJsonPath('may_write', false)
            ->assertJsonPath('waiting', 1);
    }

    public function test_a_bulk_edit_obeys_custom_fields_requirements_and_owners(): void
    {
        $lead = $this->world->lead();
        $field = $this->as($lead, 'PUT', '/projects/TST/lists/fields', [
            'fields' => [['name' => 'Risk', 'kind' => 'choice', 'choices' => ['High', 'Low']]],
        ])->json('fields.0.id');
        $need = $this->as($lead, 'POST', '/projects/TST/requirements', ['title' => 'It holds'])->json('id');
        [$a, $b] = [$this->world->case(1), $this->world->case(1)];
        $change = fn(array $changes, array $cases) => $this->as($lead, 'POST', '/projects/TST/case-acts', [
            'act' => 'edit',
            'filter' => ['ids' => implode(',', array_map(static fn(TestCase $c): string => $c->id, $cases))],
            'changes' => $changes,
        ]);
        $change(['custom' => [$field => 'sideways']], [$a])->assertUnprocessable();
        $change(['owner_id' => (string) \Illuminate\Support\Str::uuid7()], [$a])->assertUnprocessable();
        $act = $change(
            ['custom' => [$field => 'high'], 'requirements_add' => [$need], 'owner_id' => $lead->id, 'estimate' => '5m'],
            [$a, $b],
        )
            ->assertOk()
            ->assertJsonPath('changed', 2)
            ->json('act_id');
        $this->as($lead, 'GET', "/cases/{$a->key}")
            ->assertJsonPath("case.custom.{$field}", 'High')
            ->assertJsonPath('requirements.0.title', 'It holds')
            ->assertJsonPath('case.estimate_seconds', 300);
        $change(['custom' => [$field => '']], [$b])->assertJsonPath('changed', 1);
        $this->as($lead, 'POST', "/case-acts/{$act}/undo")
            ->assertJsonPath('changed', 1)
            ->assertJsonPath('refused.0.key', $b->key);
        $this->as($lead, 'GET', "/cases/{$a->key}")
            ->assertJsonPath('requirements', [])
            ->assertJsonPath('case.owner', null);
        self::assertSame([], $a->refresh()->custom);
    }

    public function test_more_than_may_be_done_at_once_is_said_beforehand(): void
    {
        $me = $this->world->person();
        $this->world->case(0);
        DB::statement(
            'insert into cases (id, project_id, number, key, title, position) select gen_random_uuid(), project_id, ' .
                "number + i, 'TST-X' || i, 'Copy ' || i, position + i from cases, generate_series(1, 2001) i",
        );
        $this->as($me, 'POST', '/projects/TST/case-previews', [
            'act' => 'edit',
            'filter' => ['state' => 'draft'],
            'changes' => ['priority' => 'low'],
        ])
            ->assertUnprocessable()
            ->assertJsonPath('errors.filter.0', 'At most 2000 cases at once. Narrow the filter, or do it in parts.');
    }
}
