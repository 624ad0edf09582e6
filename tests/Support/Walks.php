<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use Symfony\Component\HttpFoundation\Response;

/**
 * What a tester does on the walk, over the API.
 */
trait Walks
{
    /**
     * @return string the id of the attempt
     */
    protected function walked(Entry $entry, User $user): string
    {
        return (string) $this->as($user, 'POST', "/entries/{$entry->id}/attempts")
            ->assertCreated()
            ->json('attempt.id');
    }

    /**
     * @param  array<string, mixed>  $more
     */
    protected function judge(User $user, string $attempt, int $round, int $step, string $verdict, array $more = []): void
    {
        $this->send($user, $attempt, $round, $step, $verdict, $more)
            ->assertOk()
            ->assertJson(['applied' => true]);
    }

    /**
     * @param  array<string, mixed>  $more
     * @return TestResponse<Response>
     */
    protected function send(User $user, string $attempt, int $round, int $step, string $verdict, array $more = []): TestResponse
    {
        return $this->as($user, 'POST', "/attempts/{$attempt}/verdicts", [
            'round' => $round,
            'step' => $step,
            'verdict' => $verdict,
            ...$more,
        ]);
    }

    /**
     * Walks an entry of three steps to its end.
     *
     * @return string the id of the attempt
     */
    protected function finished(Entry $entry, User $user, string $verdict = 'pass'): string
    {
        $attempt = $this->walked($entry, $user);
        $this->judge(
            $user,
            $attempt,
            1,
            1,
            $verdict,
            'fail' === $verdict
                ? ['happened' => 'It broke.']
                : [
                    'reason' =>
                        ['blocked' => 'Data missing', 'pass' => 'At a second try', 'not_applicable' => 'Out of scope'][$verdict] ?? '',
                ],
        );
        foreach ([2, 3] as $step) {
            $this->judge($user, $attempt, 1, $step, 'pass');
        }
        $this->as($user, 'POST', "/attempts/{$attempt}/finish", [])->assertOk();

        return $attempt;
    }

    /**
     * @param  array<string, mixed>  $fields
     * @return TestResponse<Response>
     */
    protected function upload(
        User $user,
        string $attempt,
        string $content,
        array $fields = [],
        ?string $path = null,
        string $name = 'a.png',
    ): TestResponse {
        $file = (string) tempnam(sys_get_temp_dir(), 'up');
        file_put_contents($file, $content);

        return $this->actingAs($user)->post(
            '/api/v1' . ($path ?? "/attempts/{$attempt}/evidence"),
            ['id' => (string) Str::uuid7(), ...$fields, 'file' => new UploadedFile($file, $name, null, null, true)],
            ['Accept' => 'application/json'],
        );
    }

    /**
     * @param  ?array{int, int, int, int}  $box painted in another colour
     */
    protected static function png(int $width, int $height, int $colour = 0xfbf9f4, ?array $box = null): string
    {
        $picture = imagecreatetruecolor(max(1, $width), max(1, $height));
        imagefill($picture, 0, 0, $colour);
        if (null !== $box) {
            imagefilledrectangle($picture, $box[0], $box[1], $box[2], $box[3], 0x000000);
        }
        ob_start();
        imagepng($picture);

        return (string) ob_get_clean();
    }

    /**
     * An entry of a case with two steps that is bound to a table of people and seats, one round a row.
     *
     * @param  list<list<string>>  $rows
     */
    protected function withRows(User $user, array $rows): Entry
    {
        $table = $this->as($user, 'POST', '/projects/TST/data-tables', [
            'name' => 'People ' . DB::table('data_tables')->count(),
            'columns' => [['name' => 'who'], ['name' => 'seats']],
            'rows' => array_map(static fn(array $c): array => ['cells' => $c], $rows),
        ])
            ->assertCreated()
            ->json('table.id');
        $entry = $this->world->entry($user, 1);
        $case = TestCase::query()->findOrFail($entry->case_id);
        $this->as($user, 'PUT', "/cases/{$case->key}", [
            'title' => 'Rows',
            'table' => $table,
            'steps' => [['action' => 'Book for {{who}}', 'data' => '{{seats}}'], ['action' => 'Pay']],
            'revision' => 1,
        ])->assertOk();
        $entry->update([
            'case_version_id' => CaseVersion::query()->where('case_id', $case->id)->orderByDesc('number')->value('id'),
            'row_ids' => DB::table('data_rows')->where('table_id', $table)->orderBy('position')->pluck('id')->all(),
            'rounds' => count($rows),
        ]);

        return $entry->refresh();
    }

    /**
     * @return list<string> the kinds of an attempt's events, in order
     */
    protected function events(string $attempt): array
    {
        return array_values(DB::table('events')->where('attempt_id', $attempt)->orderBy('sequence')->pluck('kind')->all());
    }
}
