<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Coverage;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpFoundation\Response;

/**
 * Requirements come in from files of every format, are seen beforehand, go out to the same, and are taken back as one.
 */
final class RequirementImportTest extends FeatureTestCase
{
    private User $lead;

    protected function setUp(): void
    {
        parent::setUp();
        $this->lead = $this->world->lead();
    }

    public function test_it_is_seen_before_it_is_done_and_what_cannot_be_is_left_out(): void
    {
        $this->makes('Fares', 'F-1');
        $csv = "ID,Name,Parent,Owner\nF-1,Fares and discounts,,Maren\nF-2,By age,F-1,\nF-3,,F-1,\nF-4,Lost,F-99,\n";
        $seen = $this->import($csv)->assertOk();
        self::assertSame(['refused', 'refused', 'changed', 'new'], $this->outcomes($seen, [3, 2, 0, 1]));
        $seen
            ->assertJsonPath('import', null)
            ->assertJsonPath('rows.0.key', 'TST-Q1')
            ->assertJsonPath('rows.0.changes', ['title', 'details']);
        $seen->assertJsonPath('rows.2.why', 'Say what must hold.')->assertJsonPath('columns.3', ['name' => 'Owner', 'meaning' => 'detail']);
        self::assertSame(1, DB::table('requirements')->count(), 'nothing is written yet');

        $this->import($csv, ['apply' => '1'])
            ->assertOk()
            ->assertJsonPath('import.made', 1)
            ->assertJsonPath('import.changed', 1);
        self::assertSame([['TST-Q1', 'Fares and discounts', null], ['TST-Q2', 'By age', 'TST-Q1']], $this->tree());
        $again = $this->import($csv)->assertOk();
        self::assertSame(['same', 'same'], $this->outcomes($again, [0, 1]));
    }

    public function test_a_column_means_what_somebody_says(): void
    {
        $csv = "Nr,Was gelten muss\n7,Fares\n";
        $this->import($csv)
            ->assertOk()
            ->assertJsonPath('rows', [])
            ->assertJsonPath('columns.1', ['name' => 'Was gelten muss', 'meaning' => 'detail']);
        $this->import($csv, ['apply' => '1'])
            ->assertUnprocessable()
            ->assertJsonPath('errors.meanings.0', 'No column is the title. Say which one it is.');
        $said = json_encode(['Nr' => 'external_id', 'Was gelten muss' => 'title']);
        $this->import($csv, ['meanings' => $said, 'apply' => '1'])
            ->assertOk()
            ->assertJsonPath('import.made', 1);
        self::assertSame('7', DB::table('requirements')->value('external_id'));
        $this->import($csv, ['meanings' => '{"Nr": "anything"}'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['meanings']]);
    }

    public function test_what_would_stand_below_itself_is_refused_by_row_and_what_moves_is_said(): void
    {
        $top = $this->makes('Booking', 'B-1');
        $this->makes('Fares', 'B-2', '', $top);
        $this->makes('Tides', 'T-1');
        $csv = "ID,Title,Parent\nB-1,Booking,B-3\nB-3,New,B-2\nT-1,Tides,B-2\nN-1,,\nN-2,Below it,N-1\n";
        $seen = $this->import($csv)->assertOk();
        $seen->assertJsonPath('rows.0.why', 'It would stand below itself.')->assertJsonPath('rows.1.why', 'It would stand below itself.');
        $seen->assertJsonPath('rows.2.outcome', 'changed')->assertJsonPath('rows.2.changes', ['parent']);
        $seen->assertJsonPath('rows.4.why', 'It stands below row 5, which is left out.');
        $this->import($csv, ['apply' => '1'])
            ->assertOk()
            ->assertJsonPath('import.made', 0)
            ->assertJsonPath('import.changed', 1);
        self::assertSame([['TST-Q1', 'Booking', null], ['TST-Q2', 'Fares', 'TST-Q1'], ['TST-Q3', 'Tides', 'TST-Q2']], $this->tree());
    }

    public function test_rows_of_a_sheet_are_pasted_whatever_its_columns_are_called(): void
    {
        $text = "Nr\tWas\tUnter\nX-1\tGepäck\t\nX-2\tEin Stück ist frei\tX-1\n";
        $ask = fn(array $more): TestResponse => $this->as($this->lead, 'POST', '/projects/TST/requirement-imports', [
            'text' => $text,
            ...$more,
        ]);
        $ask([])
            ->assertOk()
            ->assertJsonPath('rows', [])
            ->assertJsonPath('columns.*.name', ['Nr', 'Was', 'Unter']);
        $said = ['meanings' => json_encode(['Nr' => 'external_id', 'Was' => 'title', 'Unter' => 'parent'])];
        $ask([...$said, 'apply' => true])
            ->assertOk()
            ->assertJsonPath('import.made', 2);
        self::assertSame([['TST-Q1', 'Gepäck', null], ['TST-Q2', 'Ein Stück ist frei', 'TST-Q1']], $this->tree());
        $numbered = ['text' => "1.\tBooking\n\t1.1\tFares\n2.\tTides"];
        $rows = $this->as($this->lead, 'POST', '/projects/TST/requirement-imports', $numbered)->assertOk();
        $rows->assertJsonPath('columns', [])->assertJsonCount(3, 'rows');
    }

    public function test_an_outline_is_pasted(): void
    {
        $this->as($this->lead, 'POST', '/projects/TST/requirement-imports', [
            'text' => "Fares\n  By age\n  By group\nTides",
            'apply' => true,
        ])
            ->assertOk()
            ->assertJsonPath('import.made', 4)
            ->assertJsonPath('import.name', 'pasted');
        self::assertSame(
            [['TST-Q1', 'Fares', null], ['TST-Q2', 'By age', 'TST-Q1'], ['TST-Q3', 'By group', 'TST-Q1'], ['TST-Q4', 'Tides', null]],
            $this->tree(),
        );
        $this->as($this->lead, 'POST', '/projects/TST/requirement-imports', [])
            ->assertUnprocessable()
            ->assertJsonPath('errors.file.0', 'Choose a file, or paste what is to come in.');
    }

    /**
     * @return iterable<string, array{string}>
     */
    public static function formats(): iterable
    {
        foreach (['csv', 'xlsx', 'json', 'reqif'] as $format) {
            yield $format => [$format];
        }
    }

    #[DataProvider('formats')]
    public function test_what_goes_out_comes_in_again_as_the_same(string $format): void
    {
        $text = "=SUM(1) & <b>\n\n- *one*\n- \"two\"";
        $this->makes('Fares', 'F-1', $text);
        $below = $this->makes('By age', null, '', DB::table('requirements')->value('id'));
        DB::table('requirements')
            ->where('id', $below)
            ->update(['details' => json_encode(['Owner' => '-Maren', 'Weight' => '3'])]);
        $this->makes('+ Tides', null);
        $file = $this->as($this->lead, 'GET', "/projects/TST/requirement-export?format={$format}")->assertOk();
        $content = (string) $file->getContent();
        self::assertStringContainsString("TST-requirements.{$format}", (string) $file->headers->get('Content-Disposition'));
        $same = $this->import($content, [], "a.{$format}")->assertOk();
        self::assertSame(['same', 'same', 'same'], $this->outcomes($same, [0, 1, 2]));
        $before = $this->all();
        $this->import($content, ['apply' => '1'], "a.{$format}")
            ->assertOk()
            ->assertJsonPath('import.changed', 0);
        self::assertSame($before, $this->all());
    }

    public function test_an_import_is_taken_back_as_one_and_what_somebody_changed_since_stays(): void
    {
        $fares = $this->makes('Fares', 'F-1', 'Old');
        $this->makes('Bikes', 'F-2');
        $csv = "ID,Title,Text,Parent\nF-1,Fares,New,N-1\nF-2,Bikes and boards,,\nN-1,Prices,,\nN-2,Refunds,,N-1\n";
        $before = $this->tree();
        $id = $this->import($csv, ['apply' => '1'])
            ->assertOk()
            ->json('import.id');
        self::assertNotSame($before, $this->tree());
        $this->as($this->lead, 'POST', "/requirement-imports/{$id}/undo")
            ->assertOk()
            ->assertJsonPath('undone', true)
            ->assertJsonPath('stay', []);
        self::assertSame($before, $this->tree());
        self::assertSame('Old', DB::table('requirements')->where('id', $fares)->value('text'));
        $this->as($this->lead, 'POST', "/requirement-imports/{$id}/undo")->assertConflict();

        // Again: what was dropped comes back, under its key; then somebody changes one of them.
        $second = $this->import($csv, ['apply' => '1'])
            ->assertOk()
            ->assertJsonPath('import.made', 0)
            ->json('import.id');
        $this->as($this->lead, 'PUT', '/requirements/TST-Q2', [
            'title' => 'Bikes alone',
            'external_id' => 'F-2',
            'revision' => DB::table('requirements')->where('key', 'TST-Q2')->value('revision'),
        ])->assertOk();
        $this->as($this->lead, 'POST', "/requirement-imports/{$second}/undo")
            ->assertOk()
            ->assertJsonPath('stay', ['TST-Q2']);
        self::assertSame([['TST-Q1', 'Fares', null], ['TST-Q2', 'Bikes alone', null]], $this->tree());
        $this->as($this->lead, 'GET', '/projects/TST/requirement-imports')->assertOk()->assertJsonCount(2)->assertJsonPath('0.id', $second);
    }

    public function test_bad_files_are_refused_by_row_and_nothing_is_written(): void
    {
        foreach (
            [
                "\x00\x01\x02",
                "PK\x03\x04broken",
                '{"format": "casebook"}',
                '<REQ-IF xmlns="http://www.omg.org/spec/ReqIF/20110401/reqif.xsd"><CORE',
                '<!DOCTYPE r [<!ENTITY x SYSTEM "file:///etc/hostname">]><REQ-IF>&x;</REQ-IF>',
                "\n\n",
                "Title\n\"Fares\n",
            ]
            as $content
        ) {
            $this->import($content, ['apply' => '1'])
                ->assertUnprocessable()
                ->assertJsonStructure(['errors' => ['file']]);
        }
        self::assertSame(0, DB::table('requirements')->count());
        $this->as($this->lead, 'GET', '/projects/TST/requirement-export?format=exe')->assertUnprocessable();
    }

    private function makes(string $title, ?string $id, string $text = '', ?string $parent = null): string
    {
        return (string) $this->as($this->lead, 'POST', '/projects/TST/requirements', [
            'title' => $title,
            'external_id' => $id,
            'text' => $text,
            'parent_id' => $parent,
        ])
            ->assertCreated()
            ->json('id');
    }

    /**
     * @param  array<string, mixed>  $more
     *
     * @return TestResponse<Response>
     */
    private function import(string $content, array $more = [], string $name = 'a.csv'): TestResponse
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'rq');
        file_put_contents($path, $content);
        $this->uploads[] = $file = new UploadedFile($path, $name, null, null, true);

        return $this->actingAs($this->lead)->post(
            '/api/v1/projects/TST/requirement-imports',
            [...$more, 'file' => $file],
            ['Accept' => 'application/json'],
        );
    }

    /**
     * @param  TestResponse<Response>  $answer
     * @param  list<int>  $places
     *
     * @return list<string>
     */
    private function outcomes(TestResponse $answer, array $places): array
    {
        return array_map(static fn(int $at): string => (string) $answer->json("rows.{$at}.outcome"), $places);
    }

    /**
     * @return array<array-key, array<array-key, mixed>> key, title, and the key above, in the order of the tree
     */
    private function tree(): array
    {
        $rows = (array) $this->as($this->lead, 'GET', '/projects/TST/coverage')->assertOk()->json('rows');
        $keys = array_column($rows, 'key', 'id');

        return array_map(static fn(array $r): array => [$r['key'], $r['title'], $keys[$r['parent_id'] ?? ''] ?? null], $rows);
    }

    /**
     * @return array<array-key, array<array-key, mixed>>
     */
    private function all(): array
    {
        return array_map(
            static fn(\stdClass $r): array => [$r->title, $r->text, $r->external_id, $r->details],
            DB::table('requirements')->orderBy('position')->orderBy('title')->get()->all(),
        );
    }
}
