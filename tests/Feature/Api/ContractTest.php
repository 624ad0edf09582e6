<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Api;

use Illuminate\Routing\Route;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route as Routes;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Demo\LoadDemo;
use LucidStep\Tests\Support\DescribedAnswers;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * What the API says of itself and what it does are the same.
 */
final class ContractTest extends FeatureTestCase
{
    use DescribedAnswers;

    /** @var array<string, mixed> */
    private array $spec;

    protected function setUp(): void
    {
        parent::setUp();
        $this->spec = json_decode((string) file_get_contents(base_path('docs/openapi.json')), true, 512, JSON_THROW_ON_ERROR);
    }

    public function test_every_route_is_described_and_every_description_is_a_route(): void
    {
        $routes = collect(Routes::getRoutes()->getRoutes())
            ->filter(static fn(Route $r): bool => str_starts_with($r->uri(), 'api/v1'))
            ->map(static fn(Route $r): string => strtolower($r->methods()[0]) . ' /' . substr($r->uri(), 7))
            ->sort()
            ->values()
            ->all();
        $described = [];
        foreach ($this->spec['paths'] as $path => $operations) {
            foreach (array_keys($operations) as $method) {
                $described[] = "{$method} {$path}";
            }
        }
        sort($described);
        self::assertSame($routes, $described);
    }

    public function test_every_reading_of_the_demo_answers_as_described(): void
    {
        $this->app?->make(LoadDemo::class)();
        $person = User::query()->where('email', 'tobias@skerrywick.test')->firstOrFail();
        $ids = [
            'project' => 'SKR',
            'cycle' => 'SKR-R2',
            'case' => 'SKR-C13',
            'defect' => 'SKR-D35',
            'entry' => (string) DB::table('entries')->where('display_state', 'retest')->value('id'),
            'folder' => (string) DB::table('folders')->value('id'),
            'routine' => (string) DB::table('routines')->value('id'),
            'table' => (string) DB::table('data_tables')->value('id'),
            'suite' => (string) DB::table('suites')->where('kind', 'rule')->value('id'),
            'import' => (string) DB::table('case_imports')->value('id'),
            'export' => (string) DB::table('case_exports')->value('id'),
            'charter' => 'SKR-S1',
            'requirement' => 'SKR-Q3',
            'testSession' => (string) DB::table('test_sessions')->where('state', 'stopped')->value('id'),
            'sessionLine' => (string) DB::table('repros')->whereNotNull('case_id')->value('line_id'),
            'attempt' => (string) DB::table('attempts')->join('evidence', 'evidence.attempt_id', '=', 'attempts.id')->value('attempts.id'),
        ];
        $lead = User::query()->where('email', 'maren@skerrywick.test')->firstOrFail();
        $owner = User::query()->where('is_owner', true)->firstOrFail();
        $ids['entry'] = (string) DB::table('entries')
            ->join('cases', 'cases.id', '=', 'case_id')
            ->join('cycles', 'cycles.id', '=', 'cycle_id')
            ->where('cycles.state', 'released')
            ->whereColumn('case_version_id', '<>', 'version_id')
            ->whereNull('open_attempt_id')
            ->value('entries.id');
        $ids['addition'] = (string) DB::table('entry_additions')->value('id');
        $ids['export'] = (string) $this->as($person, 'POST', '/projects/SKR/case-exports', [
            'format' => 'csv',
            'filter' => ['state' => 'draft'],
        ])
            ->assertCreated()
            ->json('id');
        $builds = DB::table('builds')->where('name', 'like', '4.2%')->orderBy('position')->pluck('id')->all();
        $leads = ['/projects/{project}/queue', '/projects/{project}/setup-log', '/mails', '/entry-additions/{addition}'];
        $checked = 0;
        foreach ($this->spec['paths'] as $path => $operations) {
            $schema = $operations['get']['responses']['200']['content']['application/json']['schema'] ?? null;
            if ($schema === null || str_contains($path, '{evidence}')) {
                continue;
            }
            $real = (string) preg_replace_callback('/\{(\w+)\}/', static fn(array $m): string => $ids[$m[1]], $path);
            $real .= str_ends_with($path, '/comparison') && str_starts_with($path, '/cycles') ? '?with=SKR-R1' : '';
            $real .= str_ends_with($path, '/build-comparison') ? "?one={$builds[0]}&other={$builds[1]}" : '';
            $real .= str_ends_with($path, '/trace') ? '?kind=requirement&id=SKR-Q1' : '';
            $who = match (true) {
                '/installation' === $path => $owner,
                '/projects/{project}/tracker' === $path => User::query()->where('email', 'corin@skerrywick.test')->firstOrFail(),
                \in_array($path, $leads, true) => $lead,
                default => $person,
            };
            $this->assertFits($schema, (string) $this->as($who, 'GET', $real)->assertOk()->getContent(), $path);
            $checked++;
        }
        self::assertGreaterThanOrEqual(17, $checked);
        foreach (
            [
                'open' => '/attempts/' . DB::table('attempts')->where('state', 'open')->value('id'),
                'words' => '/projects/SKR/go-to?q=tide',
                'page' => '/projects/SKR/cases?q=vehicle',
                'groups' => '/projects/SKR/cases?group=owner',
                'bin' => '/projects/SKR/routines?bin=yes',
                'draft' => "/attempts/{$ids['attempt']}/defect-draft?round=1&step=2",
            ]
            as $what => $path
        ) {
            $described = (string) preg_replace(
                ['/\?.*/', '#/attempts/[0-9a-f-]+#', '#/projects/SKR#'],
                ['', '/attempts/{attempt}', '/projects/{project}'],
                $path,
            );
            $this->assertFits(
                $this->spec['paths'][$described]['get']['responses']['200']['content']['application/json']['schema'],
                (string) $this->as($person, 'GET', $path)->assertOk()->getContent(),
                $what,
            );
        }
    }

    public function test_every_problem_is_one(): void
    {
        $me = $this->world->person();
        $entry = $this->world->entry($me);
        $schema = ['$ref' => '#/components/schemas/Problem'];
        $answers = [
            $this->as($me, 'GET', '/cycles/none'),
            $this->as($me, 'POST', "/entries/{$entry->id}/retests", ['reason' => 'x']),
            $this->as($me, 'POST', '/projects/TST/defects', []),
            $this->as($this->world->lead(), 'POST', "/entries/{$entry->id}/retests", ['reason' => 'x']),
            $this->as($me, 'POST', "/entries/{$entry->id}/attempts", [], ['Idempotency-Key' => 'x']),
        ];
        self::assertSame([404, 403, 422, 409, 422], array_map(static fn($a): int => $a->getStatusCode(), $answers));
        foreach ($answers as $answer) {
            $this->assertFits($schema, (string) $answer->getContent(), (string) $answer->getStatusCode());
        }
    }

    /**
     * @return iterable<string, array{Role, array<string, int>}>
     */
    public static function roles(): iterable
    {
        $no = [
            'start' => 403,
            'verdict' => 403,
            'note' => 403,
            'finish' => 403,
            'time' => 403,
            'retest' => 403,
            'file' => 403,
            'link' => 403,
            'move' => 403,
            'import' => 403,
        ];
        yield 'reader' => [Role::Reader, $no];
        yield 'developer' => [Role::Developer, [...$no, 'move' => 200]];
        yield 'tester' => [
            Role::Tester,
            [
                'start' => 409,
                'verdict' => 202,
                'note' => 202,
                'finish' => 202,
                'time' => 403,
                'retest' => 403,
                'file' => 201,
                'link' => 201,
                'move' => 200,
                'import' => 422,
            ],
        ];
        yield 'lead' => [
            Role::Lead,
            [
                'start' => 409,
                'verdict' => 202,
                'note' => 202,
                'finish' => 202,
                'time' => 200,
                'retest' => 409,
                'file' => 201,
                'link' => 201,
                'move' => 200,
                'import' => 422,
            ],
        ];
        yield 'admin' => [
            Role::Admin,
            [
                'start' => 409,
                'verdict' => 202,
                'note' => 202,
                'finish' => 202,
                'time' => 200,
                'retest' => 409,
                'file' => 201,
                'link' => 201,
                'move' => 200,
                'import' => 422,
            ],
        ];
    }

    /**
     * What each role may do with an attempt that is another person's.
     *
     * @param  array<string, int>  $expected
     */
    #[\PHPUnit\Framework\Attributes\DataProvider('roles')]
    public function test_what_each_role_may_do(Role $role, array $expected): void
    {
        $owner = $this->world->person('owner');
        $entry = $this->world->entry($owner);
        $attempt = $this->as($owner, 'POST', "/entries/{$entry->id}/attempts")->json('attempt.id');
        $this->as($owner, 'POST', '/projects/TST/defects', ['title' => 'Known'])->assertCreated();
        $me = $this->world->person('me', $role);
        $done = [];
        foreach (
            [
                'start' => ["/entries/{$entry->id}/attempts", []],
                'verdict' => ["/attempts/{$attempt}/verdicts", ['round' => 1, 'step' => 1, 'verdict' => 'pass']],
                'note' => ["/attempts/{$attempt}/notes", ['round' => 1, 'step' => 1, 'note' => 'x']],
                'finish' => ["/attempts/{$attempt}/finish", ['verdict' => 'pass', 'note' => 'seen it']],
                'time' => ["/attempts/{$attempt}/time", ['time' => '5m']],
                'retest' => ["/entries/{$entry->id}/retests", ['reason' => 'again']],
                'file' => ['/projects/TST/defects', ['title' => 'New one']],
                'link' => ['/defects/TST-D1/links', ['attempt_id' => $attempt]],
                'move' => ['/defects/TST-D1/moves', ['state' => 'accepted']],
                'import' => ['/projects/TST/case-imports', []],
            ]
            as $what => [$path, $body]
        ) {
            $status = $this->as($me, 'POST', $path, $body)->getStatusCode();
            // Who may not import is told so only with a file; without one the file is asked for first.
            $done[$what] = $what === 'import' && $status === 422 && !$role->records() ? 403 : $status;
        }
        self::assertSame($expected, $done);
        self::assertSame('not_run', $entry->refresh()->display_state);
    }

    /**
     * @param  array<string, mixed>  $schema
     */
    private function assertFits(array $schema, string $json, string $what): void
    {
        self::assertNull(self::misfit($this->spec['components'], $schema, $json, $what));
    }
}
