<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Areas\Casebook\Queries\FolderPaths;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\World;
use PhpOffice\PhpSpreadsheet\IOFactory;

/**
 * Cases out, and in again elsewhere.
 */
final class ExportTest extends FeatureTestCase
{
    public function test_what_goes_out_comes_back_elsewhere_field_by_field(): void
    {
        $me = $this->fill();
        $far = new World('FAR');
        $far->project->memberships()->create(['user_id' => $me->id, 'role' => Role::Lead]);
        $json = $this->export('json');
        $id = $this->upload($json, 'book.json', 'FAR')
            ->assertJsonPath('state', 'ready')
            ->assertJsonPath('refuses', 0)
            ->assertJsonPath('creates', 3)
            ->json('id');
        $this->as($me, 'POST', "/case-imports/{$id}/start")->assertJsonPath('state', 'done');
        self::assertEquals($this->whole('TST'), $this->whole('FAR'));
        self::assertEquals($this->around('TST'), $this->around('FAR'));
        // Taken back, what came along goes too; a folder with something in it stays.
        $this->as($me, 'POST', '/projects/FAR/cases', [
            'title' => 'Mine',
            'folder_id' => DB::table('folders')->where('project_id', $far->project->id)->where('name', 'Inner')->value('id'),
        ])->assertCreated();
        $this->as($me, 'POST', "/case-imports/{$id}/undo")->assertOk();
        $left = $this->around('FAR');
        self::assertSame([['Mine', []]], $left['needs']);
        self::assertSame([['Empty'], ['Empty', 'Inner']], $left['folders']);
        self::assertSame([], $left['suites']);
        $this->clear($far->project);
        self::assertStringNotContainsString('kelpie', $json);
        // The other formats find routines, tables and fields there by their names.
        foreach ([['csv', 'step'], ['xlsx', 'step'], ['csv', 'case'], ['xlsx', 'case']] as [$format, $layout]) {
            $content = $this->export($format, ['layout' => $layout]);
            self::assertStringNotContainsString('kelpie', $content);
            $this->clear($far->project);
            $id = $this->upload($content, "book.{$format}", 'FAR')
                ->assertJsonPath('state', 'ready')
                ->assertJsonPath('refuses', 0)
                ->assertJsonPath('creates', 3)
                ->json('id');
            $this->as($me, 'POST', "/case-imports/{$id}/start")->assertJsonPath('state', 'done');
            self::assertEquals($this->whole('TST', false), $this->whole('FAR', false), "{$format} {$layout}");
        }
        // Into its own project nothing changes: it is all the same, pictures too.
        $this->upload($this->export('csv'), 'book.csv')->assertJsonPath('same', 3)->assertJsonPath('changes', 0);
        $this->upload($this->export('json'), 'book.json')->assertJsonPath('same', 3);
    }

    public function test_routines_of_a_casebook_come_in_whatever_their_order_and_a_circle_is_refused(): void
    {
        $book = static fn(array $routines): string => (string) json_encode([
            'format' => 'lucid-step/casebook',
            'version' => 1,
            'routines' => $routines,
            'cases' => [['title' => 'One', 'steps' => [['routine' => 'Outer']]]],
        ]);
        $id = $this->upload(
            $book([['name' => 'Outer', 'steps' => [['routine' => 'Inner']]], ['name' => 'Inner', 'steps' => [['action' => 'Do']]]]),
            'book.json',
        )
            ->assertJsonPath('creates', 1)
            ->json('id');
        $this->as($this->world->person(), 'POST', "/case-imports/{$id}/start")->assertJsonPath('state', 'done');
        $this->as($this->world->person(), 'GET', '/cases/TST-C1')->assertJsonPath('routines.0.name', 'Outer');
        $id = $this->upload(
            $book([['name' => 'A', 'steps' => [['routine' => 'B']]], ['name' => 'B', 'steps' => [['routine' => 'A']]]]),
            'book.json',
        )->json('id');
        $this->as($this->world->person(), 'POST', "/case-imports/{$id}/start")->assertJsonPath('state', 'failed');
        self::assertSame(1, TestCase::query()->count());
    }

    public function test_other_formats_read_well_and_run_nothing(): void
    {
        $me = $this->fill();
        $csv = $this->export('csv');
        self::assertStringStartsWith("\xEF\xBB\xBFkey,title,folder", $csv);
        self::assertStringContainsString("'=1+1", $csv);
        self::assertStringContainsString('| 1 | Routine: Sign in | who = isla |', $this->export('md'));
        $html = $this->export('html');
        self::assertStringContainsString('&lt;script&gt;', $html);
        self::assertStringNotContainsString('<script', $html);
        self::assertStringContainsString('data:image/png;base64,', $html);
        $path = (string) tempnam(sys_get_temp_dir(), 'book');
        file_put_contents($path, $this->export('xlsx'));
        $sheet = IOFactory::load($path)->getActiveSheet();
        self::assertSame('title', $sheet->getCell('B1')->getFormattedValue());
        unlink($path);
        $this->as($me, 'POST', '/projects/TST/case-exports', [
            'format' => 'csv',
            'layout' => 'case',
            'filter' => ['q' => 'nowhere'],
        ])->assertUnprocessable();
        $flat = $this->export('csv', ['layout' => 'case', 'expand' => true]);
        self::assertStringContainsString("1. Open the page\n2. Type isla", str_replace("\r", '', $flat));
        $this->as($me, 'GET', '/projects/TST/case-template')->assertOk();
        $template = $this->as($me, 'GET', '/projects/TST/case-template?layout=case')->streamedContent();
        $this->upload($template)->assertJsonPath('state', 'ready')->assertJsonPath('creates', 1)->assertJsonPath('refuses', 0);
    }

    /**
     * A casebook that uses everything.
     */
    private function fill(): User
    {
        $me = $this->world->person();
        $field = $this->as($this->world->lead(), 'PUT', '/projects/TST/lists/fields', [
            'fields' => [['name' => 'Risk', 'kind' => 'choice', 'choices' => ['High', 'Low']], ['name' => 'Since', 'kind' => 'date']],
        ])->json('fields.0.id');
        $folder = $this->as($me, 'POST', '/projects/TST/folders', ['name' => 'Fares / seats'])->json('id');
        $need = $this->as($me, 'POST', '/projects/TST/requirements', ['title' => 'Fares are right'])->json('id');
        $open = $this->as($me, 'POST', '/projects/TST/routines', ['name' => 'Open', 'steps' => [['action' => 'Open the page']]])->json(
            'routine.id',
        );
        $sign = $this->as($me, 'POST', '/projects/TST/routines', [
            'name' => 'Sign in',
            'parameters' => [['name' => 'who', 'default' => 'nobody']],
            'steps' => [['routine' => $open], ['action' => 'Type {{who}}']],
        ])->json('routine.id');
        $table = $this->as($me, 'POST', '/projects/TST/data-tables', [
            'name' => 'People',
            'columns' => [['name' => 'user'], ['name' => 'pin', 'secret' => true]],
            'rows' => [['cells' => ["is\nla", 'kelpie-4711']]],
        ])->json('table.id');
        $sha = $this->actingAs($me)
            ->post(
                '/api/v1/projects/TST/files',
                ['file' => UploadedFile::fake()->image('seen.png', 40, 30)],
                ['Accept' => 'application/json'],
            )
            ->json('sha256');
        $this->as($me, 'POST', '/projects/TST/cases', [
            'title' => 'Everything, "quoted"',
            'objective' => "=1+1\n\n**bold**",
            'preconditions' => 'one',
            'postconditions' => '- a list',
            'folder_id' => $folder,
            'type' => 'security',
            'priority' => 'critical',
            'automated' => true,
            'estimate' => '1h 20m',
            'labels' => ['a, b', 'c'],
            'requirements' => [$need],
            'custom' => [$field => 'High'],
            'table' => $table,
            'steps' => [
                ['routine' => $sign, 'values' => ['who' => 'isla']],
                ['action' => '<script>alert(1)</script>', 'data' => '=1+1', 'expected' => "'=x"],
                ['action' => 'Look {{user}}', 'files' => [['sha256' => $sha, 'name' => 'seen.png']]],
            ],
        ])->assertCreated();
        $this->as($me, 'POST', '/projects/TST/cases', ['title' => 'Without steps', 'is_template' => true])->assertCreated();
        $this->as($me, 'POST', '/projects/TST/cases', [
            'title' => 'Approved',
            'owner_id' => null,
            'steps' => [['expected' => 'only this']],
        ])->assertCreated();
        $this->as($this->world->lead(), 'POST', '/cases/TST-C3/reviews', ['act' => 'approve'])->assertOk();
        $this->as($me, 'PUT', '/cases/TST-C1/needs', ['needs' => [['case' => 'TST-C3', 'kind' => 'only_if_passed']]])->assertOk();
        $empty = $this->as($me, 'POST', '/projects/TST/folders', ['name' => 'Empty'])->json('id');
        $this->as($me, 'POST', '/projects/TST/folders', ['name' => 'Inner', 'parent_id' => $empty])->assertCreated();
        $ids = DB::table('cases')->orderByDesc('number')->pluck('id')->all();
        foreach (
            [
                ['name' => 'By hand', 'kind' => 'picked', 'add' => $ids],
                [
                    'name' => 'By rule',
                    'kind' => 'rule',
                    'filter' => [
                        'folder' => $folder,
                        'owner' => "none,{$me->id}",
                        'table' => $table,
                        "field.{$field}" => 'High',
                        'q' => 'every',
                    ],
                ],
                ['name' => 'Any table', 'kind' => 'rule', 'filter' => ['table' => 'any', 'routine' => $sign, 'requirement' => $need]],
                ['name' => 'Fares', 'kind' => 'requirement', 'requirement_id' => $need],
            ]
            as $suite
        ) {
            $this->as($me, 'POST', '/projects/TST/suites', $suite)->assertCreated();
        }

        return $me;
    }

    /**
     * Everything of the cases of a project, by names.
     *
     * @return list<array<string, mixed>>
     */
    private function whole(string $code, bool $pictures = true): array
    {
        $project = Project::query()->where('code', $code)->firstOrFail();
        $me = $this->world->person();
        $fields = DB::table('custom_fields')->where('project_id', $project->id)->pluck('name', 'id');
        $tables = DB::table('data_tables')->where('project_id', $project->id)->pluck('name', 'id');
        $routines = DB::table('routines')->where('project_id', $project->id)->pluck('name', 'id');
        $all = [];
        foreach (TestCase::query()->where('project_id', $project->id)->orderBy('number')->get() as $case) {
            $d = $this->as($me, 'GET', "/cases/{$case->key}")
                ->assertOk()
                ->json();
            $all[] = [
                'title' => $d['case']['title'],
                'texts' => [$d['objective'], $d['preconditions'], $d['postconditions']],
                'folder' => $d['folder_path'],
                'type' => $d['case']['type'],
                'priority' => $d['case']['priority'],
                'state' => $d['case']['state'],
                'automated' => $d['case']['automated'],
                'template' => $d['case']['is_template'],
                'estimate' => $d['case']['estimate_seconds'],
                'labels' => $d['case']['labels'],
                'owner' => $d['case']['owner']['name'] ?? null,
                'requirements' => $pictures ? array_column($d['requirements'], 'title') : [],
                'custom' => array_combine(
                    array_map(static fn(int|string $id): string => $fields[$id], array_keys($d['case']['custom'])),
                    $d['case']['custom'],
                ),
                'table' => null === $d['case']['table_id'] ? null : $tables[$d['case']['table_id']],
                'steps' => array_map(
                    static fn(array $s): array => [
                        ...$s,
                        'routine' => null === $s['routine'] ? null : $routines[$s['routine']],
                        'files' => $pictures ? $s['files'] : [],
                    ],
                    $d['steps'],
                ),
                'routines' => array_map(
                    static fn(array $r): array => [$r['name'], $r['parameters'], array_column($r['steps'], 'action')],
                    $d['routines'],
                ),
                'problems' => $d['problems'],
            ];
        }

        return $all;
    }

    /**
     * What stands around the cases of a project, by names.
     *
     * @return array<string, mixed>
     */
    private function around(string $code): array
    {
        $project = Project::query()->where('code', $code)->firstOrFail();
        $me = $this->world->person();
        $title = DB::table('cases')->where('project_id', $project->id)->pluck('title', 'id');
        $suites = [];
        foreach (
            (array) $this->as($me, 'GET', "/projects/{$code}/suites")
                ->assertOk()
                ->json()
            as $s
        ) {
            $in = DB::table('suite_cases')->where('suite_id', $s['id'])->orderBy('position')->pluck('case_id')->all();
            $rule = array_map(
                static fn(string $v): array => array_map(static fn(string $id): string => self::nameOf($id), explode(',', $v)),
                (array) $s['filter'],
            );
            $suites[$s['name']] = [
                $s['kind'],
                $s['cases'],
                array_map(static fn(string $id): string => $title[$id], $in),
                array_combine(
                    array_map(static fn(string $k): string => self::nameOf(str_replace('field.', '', $k)), array_keys($rule)),
                    $rule,
                ),
                null === $s['requirement_id'] ? null : self::nameOf($s['requirement_id']),
            ];
        }
        $paths = (new FolderPaths($project))->all();
        $needs = [];
        foreach (TestCase::query()->where('project_id', $project->id)->whereNull('binned_at')->orderBy('number')->get() as $case) {
            $needs[] = [
                $case->title,
                array_map(
                    static fn(array $n): array => [$n['title'], $n['kind']],
                    (array) $this->as($me, 'GET', "/cases/{$case->key}/needs")->json(),
                ),
            ];
        }

        return ['suites' => $suites, 'folders' => $paths, 'needs' => $needs];
    }

    private static function nameOf(string $id): string
    {
        foreach (
            [
                'folders' => 'name',
                'users' => 'name',
                'data_tables' => 'name',
                'routines' => 'name',
                'requirements' => 'title',
                'custom_fields' => 'name',
            ]
            as $table => $column
        ) {
            $name = Str::isUuid($id) ? DB::table($table)->where('id', $id)->value($column) : null;
            if (null !== $name) {
                return (string) $name;
            }
        }

        return $id;
    }

    private function clear(Project $project): void
    {
        DB::table('cases')
            ->where('project_id', $project->id)
            ->update(['version_id' => null, 'approved_version_id' => null, 'table_id' => null]);
        TestCase::query()->where('project_id', $project->id)->delete();
    }

    /**
     * @param  array<string, mixed>  $options
     */
    private function export(string $format, array $options = []): string
    {
        Cache::flush();
        $made = $this->as($this->world->person(), 'POST', '/projects/TST/case-exports', ['format' => $format, ...$options])
            ->assertCreated()
            ->assertJsonPath('state', 'done');

        return (string) $this->as($this->world->person(), 'GET', "/case-exports/{$made->json('id')}/file")
            ->assertOk()
            ->streamedContent();
    }

    public function test_a_colleagues_export_is_stopped_by_leads_alone(): void
    {
        $me = $this->world->person();
        $this->world->case(1);
        $export = (string) $this->as($me, 'POST', '/projects/TST/case-exports', ['format' => 'csv'])
            ->assertCreated()
            ->json('id');
        $stop = fn(\LucidStep\App\Models\User $who) => $this->as($who, 'POST', "/case-exports/{$export}/cancel");
        $stop($this->world->person('reader', Role::Reader))->assertForbidden();
        $stop($this->world->person('other'))->assertForbidden();
        $stop($me)->assertOk();
        $stop($this->world->lead())->assertOk();
    }

    /**
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function upload(string $content, string $name = 'cases.csv', string $project = 'TST'): TestResponse
    {
        return $this->actingAs($this->world->person())->post(
            "/api/v1/projects/{$project}/case-imports",
            ['file' => UploadedFile::fake()->createWithContent($name, $content)],
            ['Accept' => 'application/json'],
        );
    }
}
