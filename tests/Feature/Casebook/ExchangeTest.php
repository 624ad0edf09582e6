<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Areas\Casebook\Exchange\ImportCases;
use LucidStep\App\Models\CaseImport;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use PhpOffice\PhpSpreadsheet\Spreadsheet;
use PhpOffice\PhpSpreadsheet\Writer\Xlsx;
use PHPUnit\Framework\Attributes\DataProvider;

final class ExchangeTest extends FeatureTestCase
{
    public function test_a_file_is_shown_first_and_written_only_when_the_person_says_so(): void
    {
        $this->as($this->world->person(), 'POST', '/projects/TST/folders', ['name' => 'Fares']);
        $state = $this->upload(
            "Test case title;Module;Steps;Expected result;Colour\nOne;Fares / Groups;\"1. Open\n2. Pay\";\"1. " .
                "Opens\n2. Paid\";red\nTwo;Fares;Look;Seen;\n;Fares;Nobody;x;",
        )->assertCreated();
        $state
            ->assertJsonPath('state', 'ready')
            ->assertJsonPath('separator', ';')
            ->assertJsonPath('layout', 'case')
            ->assertJsonPath('mapping', ['title', 'folder', 'action', 'expected', null])
            ->assertJsonPath('samples.4', ['red']);
        $state
            ->assertJsonPath('creates', 2)
            ->assertJsonPath('refuses', 1)
            ->assertJsonPath('report.0', [
                'row' => 4,
                'is' => 'refuse',
                'key' => null,
                'title' => '',
                'steps' => 1,
                'reasons' => ['title: There is no title.'],
            ])
            ->assertJsonPath('report.1.steps', 2);
        self::assertSame(0, TestCase::query()->count());
        $id = $state->json('id');
        $this->as($this->world->person(), 'POST', "/case-imports/{$id}/start")
            ->assertOk()
            ->assertJsonPath('state', 'done');
        $this->as($this->world->person(), 'GET', '/cases/TST-C1')
            ->assertJsonPath('folder_path', ['Fares', 'Groups'])
            ->assertJsonPath('steps.1.expected', 'Paid');
        self::assertSame(2, TestCase::query()->count());
        $this->as($this->world->person(), 'POST', "/case-imports/{$id}/start")->assertConflict();
    }

    public function test_a_mapping_is_changed_and_remembered_by_the_headers(): void
    {
        $me = $this->world->person();
        $csv = "Wat,Wie\nOne,Do";
        $id = $this->upload($csv)
            ->assertCreated()
            ->assertJsonPath('state', 'failed')
            ->assertJsonPath('header', ['Wat', 'Wie'])
            ->json('id');
        foreach ([['title', 'title'], [null, 'action'], ['title']] as $bad) {
            $this->as($me, 'POST', "/case-imports/{$id}/mapping", ['mapping' => $bad, 'layout' => 'step'])->assertUnprocessable();
        }
        $this->as($me, 'POST', "/case-imports/{$id}/mapping", ['mapping' => ['title', 'action'], 'layout' => 'step'])
            ->assertOk()
            ->assertJsonPath('state', 'ready')
            ->assertJsonPath('creates', 1);
        $this->upload("wat, WIE \nTwo,Do")
            ->assertJsonPath('state', 'ready')
            ->assertJsonPath('mapping', ['title', 'action']);
        $this->as($this->world->person('other'), 'POST', "/case-imports/{$id}/start")->assertForbidden();
        $this->as($me, 'POST', "/case-imports/{$id}/cancel")->assertJsonPath('state', 'cancelled');
        $this->as($me, 'POST', "/case-imports/{$id}/start")->assertConflict();
    }

    public function test_words_of_a_file_are_said_to_mean_what_the_project_has_and_that_is_remembered(): void
    {
        $me = $this->world->person();
        $csv = "Titel;Priorität;Verantwortlich;Schritt\nEins;hoch;Herr Meier;x\nZwei;dringend;Herr Meier;x\nDrei;niedrig;;x";
        $state = $this->upload($csv)
            ->assertCreated()
            ->assertJsonPath('mapping', ['title', 'priority', 'owner', 'action'])
            ->assertJsonPath('creates', 1)
            ->assertJsonPath('refuses', 2);
        $value = static fn(TestResponse $s): array => array_column((array) $s->json('words'), 'value', 'word');
        self::assertSame(['hoch' => 'high', 'dringend' => 'critical', 'niedrig' => 'low', 'Herr Meier' => null], $value($state));
        $id = $state->json('id');
        $map = fn(array $words): TestResponse => $this->as($me, 'POST', "/case-imports/{$id}/mapping", [
            'mapping' => $state->json('mapping'),
            'layout' => 'step',
            'words' => $words,
        ]);
        $map([['field' => 'priority', 'word' => 'Dringend', 'value' => 'nosuch']])
            ->assertUnprocessable()
            ->assertJsonValidationErrors('words.0.value');
        $map([['field' => 'title', 'word' => 'x', 'value' => 'y']])->assertUnprocessable();
        $map([
            ['field' => 'priority', 'word' => 'Dringend', 'value' => 'critical'],
            ['field' => 'priority', 'word' => 'hoch', 'value' => 'medium'],
            ['field' => 'owner', 'word' => 'Herr Meier', 'value' => $me->id],
        ])
            ->assertOk()
            ->assertJsonPath('creates', 3);
        // The next file is read so at once, whatever its headers; what is being brought in stays as it was shown.
        $next = $this->upload("title,owner,priority\nVier,herr meier,HOCH")->assertJsonPath('creates', 1);
        self::assertSame(['herr meier' => $me->id, 'HOCH' => 'medium'], $value($next));
        $this->as($me, 'POST', "/case-imports/{$next->json('id')}/mapping", [
            'mapping' => ['title', 'owner', 'priority'],
            'layout' => 'step',
            'words' => [['field' => 'priority', 'word' => 'hoch', 'value' => null]],
        ])->assertOk();
        $this->as($me, 'POST', "/case-imports/{$id}/start")->assertJsonPath('state', 'done');
        self::assertSame(
            ['Eins' => 'medium', 'Zwei' => 'critical', 'Drei' => 'low'],
            DB::table('cases')->orderBy('number')->pluck('priority', 'title')->all(),
        );
    }

    public function test_by_key_cases_are_changed_and_the_whole_is_undone_as_one_act(): void
    {
        $me = $this->world->person();
        $case = $this->world->case(2);
        $same = $this->world->case(1);
        $binned = $this->world->case(1);
        $binned->update(['binned_at' => now()]);
        $csv =
            "key,title,priority,action,data,expected\n{$case->key},Case 1,high,Do 1,data 1,See 1\n,,,Do 2 " .
            "better,data 2,See 2\n{$same->key},Case 2,medium,Do 1,data 1,See 1\n{$binned->key},Case " .
            "3,,Do,,\nOLD-C9,From elsewhere,low,Do,,See";
        $state = $this->upload($csv)
            ->assertJsonPath('changes', 1)
            ->assertJsonPath('same', 1)
            ->assertJsonPath('refuses', 1)
            ->assertJsonPath('creates', 1);
        $id = $state->json('id');
        $this->as($me, 'POST', "/case-imports/{$id}/start")
            ->assertOk()
            ->assertJsonPath('state', 'done')
            ->assertJsonPath('undoable', true);
        $this->as($me, 'GET', "/cases/{$case->key}")
            ->assertJsonPath('version', 2)
            ->assertJsonPath('steps.1.action', 'Do 2 better')
            ->assertJsonPath('case.priority', 'high');
        self::assertSame(1, $same->refresh()->revision);
        $this->as($me, 'POST', "/case-imports/{$id}/undo")
            ->assertOk()
            ->assertJsonPath('state', 'undone');
        $this->as($me, 'GET', "/cases/{$case->key}")
            ->assertJsonPath('steps.1.action', 'Do 2')
            ->assertJsonPath('case.priority', 'medium');
        self::assertNotNull(TestCase::query()->where('title', 'From elsewhere')->firstOrFail()->binned_at);
    }

    public function test_an_import_can_be_stopped_and_then_nothing_is_written(): void
    {
        $me = $this->world->person();
        Queue::fake();
        $id = $this->upload("title,action\n" . implode("\n", array_map(static fn(int $i): string => "Case {$i},Do", range(1, 500))))->json(
            'id',
        );
        CaseImport::query()
            ->whereKey($id)
            ->update(['state' => 'reading']);
        $this->app?->make(ImportCases::class)->read(CaseImport::query()->whereKey($id)->firstOrFail());
        $this->as($me, 'POST', "/case-imports/{$id}/start")->assertJsonPath('state', 'running');
        $this->as($me, 'POST', "/case-imports/{$id}/cancel")->assertOk();
        $this->app?->make(ImportCases::class)->run(CaseImport::query()->whereKey($id)->firstOrFail());
        $this->as($me, 'GET', "/case-imports/{$id}")->assertJsonPath('state', 'cancelled');
        self::assertSame(0, TestCase::query()->count());
    }

    /**
     * @return iterable<string, array{string, string, string}>
     */
    public static function badFiles(): iterable
    {
        yield 'an old workbook' => ['cases.xls', 'x', 'file'];
        yield 'nothing' => ['cases.csv', '', 'file'];
        yield 'a broken workbook' => ['cases.xlsx', 'PK broken', 'problem'];
        yield 'no text' => ['cases.csv', "a\0b", 'problem'];
        yield 'an open quote' => ['cases.csv', "title,action\nA,\"b", 'problem'];
        yield 'only a header' => ['cases.csv', "title,action\n", 'problem'];
        yield 'no JSON' => ['cases.json', '{', 'problem'];
        yield 'another JSON' => ['cases.json', '{"format":"x"}', 'problem'];
        yield 'too many columns' => ['cases.csv', implode(',', range(1, 130)), 'problem'];
    }

    #[DataProvider('badFiles')]
    public function test_a_file_that_cannot_be_read_says_why(string $name, string $content, string $where): void
    {
        $answer = $this->upload($content, $name);
        if ('file' === $where) {
            $answer->assertUnprocessable()->assertJsonStructure(['errors' => ['file']]);
        } else {
            $answer->assertCreated()->assertJsonPath('state', 'failed');
            self::assertGreaterThan(15, mb_strlen((string) $answer->json('problem')));
        }
        self::assertSame(0, TestCase::query()->count());
    }

    public function test_forty_megabytes_are_refused_before_anything_is_read(): void
    {
        $file = UploadedFile::fake()->create('cases.csv', 40 * 1024);
        $this->actingAs($this->world->person())
            ->post('/api/v1/projects/TST/case-imports', ['file' => $file], ['Accept' => 'application/json'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['file']]);
        $this->actingAs($this->world->person('reader', Role::Reader))
            ->post(
                '/api/v1/projects/TST/case-imports',
                ['file' => UploadedFile::fake()->createWithContent('c.csv', "title\nA")],
                ['Accept' => 'application/json'],
            )
            ->assertForbidden();
    }

    public function test_a_workbook_comes_in_as_people_see_it(): void
    {
        $book = new Spreadsheet();
        $sheet = $book->getActiveSheet();
        $sheet->fromArray(
            [
                ['Title', 'Step', 'Test data', 'Expected'],
                ['One', 'Open', '=1+1', 'It opens'],
                [null, 'Pay', 12.4, 'Paid'],
                ['Two', "Two\nlines", '2027-06-14', null],
            ],
            null,
            'A1',
            true,
        );
        $sheet->setCellValueExplicit('C2', '=1+1', 's');
        $path = (string) tempnam(sys_get_temp_dir(), 'book');
        (new Xlsx($book))->save($path);
        $id = $this->upload((string) file_get_contents($path), 'cases.xlsx')
            ->assertJsonPath('state', 'ready')
            ->assertJsonPath('creates', 2)
            ->json('id');
        unlink($path);
        $this->as($this->world->person(), 'POST', "/case-imports/{$id}/start")->assertJsonPath('state', 'done');
        $this->as($this->world->person(), 'GET', '/cases/TST-C1')
            ->assertJsonPath('steps.0.data', '=1+1')
            ->assertJsonPath('steps.1.data', '12.4');
        $this->as($this->world->person(), 'GET', '/cases/TST-C2')->assertJsonPath('steps.0.action', "Two\nlines");
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
