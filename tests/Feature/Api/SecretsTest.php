<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Api;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\DataTable;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\ApiOperations;
use LucidStep\Tests\Support\Everything;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\FittingBodies;
use LucidStep\Tests\Support\Walks;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * A secret value of a data table is written into every text that the API takes, and stands nowhere afterwards: in no row of any
 * table, in no mail and in no file. So no answer, export or report can tell it.
 */
final class SecretsTest extends FeatureTestCase
{
    use ApiOperations;
    use Everything;
    use FittingBodies;
    use Walks;

    private const SECRET = 'GEHEIM-4711';

    private User $admin;

    protected function setUp(): void
    {
        parent::setUp();
        $this->spec = self::description();
        $this->ids = $this->everything($this->world);
        $this->admin = $this->world->person('admin', Role::Admin);
        $this->ids += ['person' => $this->admin->id];
        $this->as($this->admin, 'POST', '/projects/TST/data-tables', $this->cards(self::SECRET))->assertCreated();
    }

    /**
     * @return array<string, array{bool}>
     */
    public static function states(): array
    {
        return ['while an attempt is walked' => [false], 'after it failed' => [true]];
    }

    #[DataProvider('states')]
    public function test_a_secret_value_in_any_text_of_any_write_is_kept_nowhere(bool $finished): void
    {
        if ($finished) {
            $this->as($this->world->person(), 'POST', "/attempts/{$this->ids['attempt']}/finish", [
                'verdict' => 'fail',
                'note' => 'The quay is closed.',
            ])->assertSuccessful();
        }
        self::assertSame('', implode(', ', $this->found()), 'before anything is tried');
        $faults = [];
        $tried = $taken = 0;
        foreach ($this->operations(['post', 'put', 'patch', 'delete']) as [$method, $path, $operation]) {
            // What a person is called is no text of a project.
            if (str_contains($path, '/data-tables') || str_starts_with($path, '/account')) {
                continue;
            }
            $body = $this->body($path) ?? $this->plausible($operation);
            unset($body['seen'], $body['revision']);
            $of = match (explode('/', $path)[1]) {
                'cases' => DB::table('cases')->where('key', $this->ids['case'])->value('revision'),
                'routines' => 1,
                default => null,
            };
            $body += null === $of ? [] : ['revision' => $of];
            foreach ([null, ...self::leaves($body)] as $leaf) {
                DB::beginTransaction();
                $answer = $this->as($this->admin, $method, $this->real($path), self::with($body, $leaf));
                $tried++;
                $taken += (int) $answer->isSuccessful();
                if (500 <= $answer->getStatusCode()) {
                    $faults[] = "{$method} {$path} breaks by " . implode('.', $leaf ?? ['all']);
                }
                foreach ($this->found() as $where) {
                    $faults[] = "{$method} {$path} " . implode('.', $leaf ?? ['all']) . " stands in {$where}";
                }
                DB::rollBack();
            }
        }
        self::assertSame([], $faults);
        self::assertGreaterThan(400, $tried);
        self::assertGreaterThan(190, $taken, 'so many were written');
    }

    public function test_text_files_have_it_hidden_and_others_do_not_leave_with_it(): void
    {
        $text = fn(string $name, string $content): UploadedFile => UploadedFile::fake()->createWithContent($name, $content);
        $put = fn(string $name, string $content) => $this->sendFile($this->admin, '/projects/TST/files', [
            'file' => $text($name, $content),
        ]);
        $sha = $put('run.log', 'login with ' . self::SECRET . " ok\n")
            ->assertCreated()
            ->json('sha256');
        self::assertSame(hash('sha256', "login with •••• ok\n"), $sha);
        self::assertSame([], $this->found());
        foreach (['page.html' => '<p>', 'a.har' => '{"q":"', 'notes.unheard' => ''] as $name => $before) {
            $put($name, $before . self::SECRET)->assertCreated();
        }
        self::assertSame([], $this->found());
        // Where nothing can be hidden in it, it does not leave: across the seams of the parts that are read, too.
        foreach (
            ['a.png' => self::png(4, 4), 'a.pdf' => "%PDF-1.7\0", 'a.zip' => "PK\x03\x04\0", 'b.bin' => "\0" . str_repeat('x', 1_048_570)]
            as $name => $content
        ) {
            $said = (string) $put($name, $content . self::SECRET . "\0")
                ->assertUnprocessable()
                ->json('errors.file.0');
            self::assertStringContainsString('keeps secret', $said, $name);
            $put($name, $content)->assertCreated();
        }
        $named = $this->sendFile($this->admin, '/projects/TST/files', ['file' => $text(self::SECRET . '.png', self::png(5, 5))]);
        self::assertSame('••••.png', $named->assertCreated()->json('name'), 'its name, whatever it holds');
        // As evidence, by its name too.
        $attempt = $this->ids['attempt'];
        $id = '0190f0aa-0000-7000-8000-0000000000ab';
        $this->sendFile($this->world->person(), "/attempts/{$attempt}/evidence", [
            'id' => $id,
            'file' => $text(self::SECRET . '.log', 'x ' . self::SECRET),
        ])->assertCreated();
        self::assertSame('••••.log', DB::table('evidence')->where('id', $id)->value('name'));
    }

    public function test_cases_that_are_brought_in_have_it_hidden(): void
    {
        $sheet = "title,action,expected\nPay,Type " . self::SECRET . ",done\n";
        foreach (['UTF-8', 'UTF-16', 'Windows-1252'] as $charset) {
            $bytes =
                'UTF-16' === $charset
                    ? "\xFF\xFE" . mb_convert_encoding($sheet, 'UTF-16LE')
                    : mb_convert_encoding($sheet . "Größe,b,c\n", $charset);
            $import = $this->sendFile($this->admin, '/projects/TST/case-imports', [
                'file' => UploadedFile::fake()->createWithContent('cases.csv', $bytes),
            ])->assertCreated();
            $this->as($this->admin, 'POST', "/case-imports/{$import->json('id')}/start")->assertSuccessful();
            self::assertSame(
                'Type ••••',
                DB::table('steps')->orderByDesc('id')->where('action', 'like', 'Type%')->value('action'),
                $charset,
            );
            self::assertSame([], $this->found(), $charset);
        }
    }

    public function test_a_value_that_was_replaced_stays_hidden_and_one_that_is_public_does_not(): void
    {
        $table = $this->table();
        $this->as($this->admin, 'PUT', "/data-tables/{$table['id']}", [...$this->cards('NEUER-0815'), 'revision' => 1])->assertOk();
        $say = fn(string $words): string => (string) $this->as($this->admin, 'POST', '/cases/TST-C1/messages', [
            'kind' => 'question',
            'body' => $words,
        ])
            ->assertCreated()
            ->json('body');
        self::assertSame('•••• or ••••?', $say(self::SECRET . ' or NEUER-0815?'));
        $public = [
            'name' => 'Cards',
            'columns' => [['name' => 'who'], ['name' => 'card']],
            'rows' => [['cells' => ['isla', 'NEUER-0815']]],
        ];
        $this->as($this->admin, 'PUT', "/data-tables/{$table['id']}", [...$public, 'revision' => 2])->assertOk();
        self::assertSame('GEHEIM-4711 or NEUER-0815?', $say(self::SECRET . ' or NEUER-0815?'));
    }

    public function test_a_column_keeps_its_secret_values_or_says_that_it_cannot(): void
    {
        $table = $this->table();
        $row = $table['rows'][0]['id'];
        $save = fn(array $columns, array $cells, int $revision) => $this->as($this->admin, 'PUT', "/data-tables/{$table['id']}", [
            'name' => 'Cards',
            'columns' => $columns,
            'rows' => [['id' => $row, 'cells' => $cells]],
            'revision' => $revision,
        ]);
        $kept = static function () use ($table): array {
            $now = DataTable::query()->where('id', $table['id'])->firstOrFail();

            return $now->rows->first()?->clear($now->columns) ?? [];
        };
        $secret = static fn(string $name): array => ['name' => $name, 'secret' => true];
        // Not secret any more: what was typed in secret is not shown.
        $save([['name' => 'who'], ['name' => 'card']], ['isla', null], 1)
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['columns']]);
        // Moved, with another column before it, or called otherwise in its place: kept.
        $save([$secret('card'), ['name' => 'who']], [null, 'isla'], 1)->assertOk();
        self::assertSame([self::SECRET, 'isla'], $kept());
        $save([['name' => 'age'], $secret('card'), ['name' => 'who']], ['34', null, 'isla'], 2)->assertOk();
        self::assertSame(['34', self::SECRET, 'isla'], $kept());
        $save([['name' => 'age'], $secret('number'), ['name' => 'who']], ['34', null, 'isla'], 3)->assertOk();
        self::assertSame(['34', self::SECRET, 'isla'], $kept());
        // The column before it taken out: not the value of that one.
        $save([$secret('number'), ['name' => 'who']], [null, 'isla'], 4)->assertOk();
        self::assertSame([self::SECRET, 'isla'], $kept());
        // Typed anew it may be public.
        $save([['name' => 'number'], ['name' => 'who']], ['HL-1', 'isla'], 5)->assertOk();
        self::assertSame(['HL-1', 'isla'], $kept());
    }

    /**
     * @return array<string, mixed>
     */
    private function cards(string $value): array
    {
        return [
            'name' => 'Cards',
            'columns' => [['name' => 'who'], ['name' => 'card', 'secret' => true]],
            'rows' => [['cells' => ['isla', $value]]],
        ];
    }

    /**
     * @return array<string, mixed>
     */
    private function table(): array
    {
        $id = DB::table('data_tables')->where('name', 'Cards')->value('id');

        return ['id' => $id, 'rows' => $this->as($this->admin, 'GET', "/data-tables/{$id}")->json('rows')];
    }

    /**
     * @param  array<string, mixed>  $body with files
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function sendFile(User $user, string $path, array $body): TestResponse
    {
        return $this->actingAs($user)->post("/api/v1{$path}", $body, ['Accept' => 'application/json']);
    }

    /**
     * @return list<string> where the value stands: tables and files
     */
    private function found(): array
    {
        static $tables = null;
        $tables ??= DB::table('pg_tables')->where('schemaname', 'public')->pluck('tablename')->all();
        $found = [];
        $all = implode(
            ' union all ',
            array_map(
                static fn(string $t): string => "select '{$t}' as t from {$t} where {$t}::text like '%" . self::SECRET . "%'",
                $tables,
            ),
        );
        foreach (DB::select("select distinct t from ({$all}) a") as $row) {
            $found[] = $row->t;
        }
        $disk = Storage::disk('local');
        foreach ($disk->allFiles() as $file) {
            if (str_contains((string) $disk->get($file), self::SECRET)) {
                $found[] = $file;
            }
        }

        return $found;
    }

    /**
     * @param  array<array-key, mixed>  $body
     * @param  list<int|string>  $under
     *
     * @return list<list<int|string>> where in it a text stands
     */
    private static function leaves(array $body, array $under = []): array
    {
        $leaves = [];
        foreach ($body as $key => $value) {
            $here = [...$under, $key];
            $leaves = match (true) {
                \is_array($value) => [...$leaves, ...self::leaves($value, $here)],
                \is_string($value) => [...$leaves, $here],
                default => $leaves,
            };
        }

        return $leaves;
    }

    /**
     * @param  array<array-key, mixed>  $body
     * @param  ?list<int|string>  $leaf null: every text of it
     *
     * @return array<array-key, mixed>
     */
    private static function with(array $body, ?array $leaf): array
    {
        foreach (null === $leaf ? self::leaves($body) : [$leaf] as $path) {
            if (null === $leaf && 'plain words' !== data_get($body, $path)) {
                continue;
            }
            data_set($body, $path, 'see ' . self::SECRET . ' there');
        }

        return $body;
    }
}
