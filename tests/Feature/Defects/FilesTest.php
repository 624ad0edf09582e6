<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Defects;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Areas\Evidence\Queries\FileUse;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Models\TrackerConnection;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;

/**
 * Files stand with a defect and with what is said of it, and are taken out like any words.
 */
final class FilesTest extends FeatureTestCase
{
    use Walks;

    private User $me;

    private User $admin;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person('tess');
        $this->admin = $this->world->person('ada', Role::Admin);
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'The gate stays shut'])->assertCreated();
    }

    public function test_pictures_go_with_what_is_said_once_however_often_they_are_sent(): void
    {
        [$id, $comment] = [(string) Str::uuid7(), (string) Str::uuid7()];
        $picture = self::png(9, 7);
        foreach ([1, 2] as $_) {
            $this->add($this->me, $picture, 'gate.png', ['id' => $id, 'comment' => $comment])
                ->assertCreated()
                ->assertJson(['id' => $id, 'name' => 'gate.png', 'media_type' => 'image/png', 'width' => 9, 'height' => 7]);
        }
        $this->as($this->me, 'GET', '/defects/TST-D1')->assertJsonPath('comments', [])->assertJsonPath('files', []);
        foreach ([1, 2] as $_) {
            // A picture says enough.
            $said = $this->say($this->me, ['id' => $comment, 'text' => ''])->assertCreated();
            self::assertSame(
                [['gate.png']],
                array_map(static fn(array $c): array => array_column($c['files'], 'name'), $said->json('comments')),
            );
        }
        self::assertSame(
            $picture,
            $this->actingAs($this->me)
                ->get("/api/v1/defect-files/{$id}/file")
                ->streamedContent(),
        );
        $this->actingAs($this->me)
            ->get("/api/v1/defect-files/{$id}/thumbnail")
            ->assertOk()
            ->assertHeader('Content-Type', 'image/webp');

        // What was said stands: nobody adds to it, nor takes from it.
        $this->add($this->me, self::png(5, 5), 'more.png', ['comment' => $comment])->assertConflict();
        $this->as($this->me, 'DELETE', "/defect-files/{$id}")->assertConflict();
        $this->say($this->me, ['id' => (string) Str::uuid7(), 'text' => ' '])
            ->assertUnprocessable()
            ->assertJsonPath('errors.text.0', 'Write what you want to say.');
        // An id belongs to one thing.
        $other = $this->world->person('otto');
        $this->say($other, ['id' => $comment, 'text' => 'x'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['id']]);
        $this->add($other, $picture, 'gate.png', ['id' => $id])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['id']]);
        // Files of somebody else do not go with what one says.
        $mine = (string) Str::uuid7();
        $this->add($other, self::png(5, 5), 'theirs.png', ['comment' => $mine])->assertCreated();
        $this->say($this->me, ['id' => $mine, 'text' => ''])->assertUnprocessable();
    }

    public function test_a_file_stands_with_the_defect_itself_and_is_taken_back_for_a_quarter_of_an_hour(): void
    {
        $log = $this->add($this->me, "line 1\nline 2", 'boot.log')->assertCreated()->json('id');
        $this->as($this->me, 'GET', '/defects/TST-D1')
            ->assertJsonPath('files.0.name', 'boot.log')
            ->assertJsonPath('files.0.thumbnail_url', null);
        $sent = $this->actingAs($this->me)->get("/api/v1/defect-files/{$log}/file");
        self::assertStringStartsWith('attachment', (string) $sent->headers->get('Content-Disposition'));
        $this->add($this->me, '<?php evil', 'picture.png')
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['file']]);
        $this->add($this->me, '', 'empty.log')->assertUnprocessable();

        $dev = $this->world->person('dev', Role::Developer);
        $this->as($dev, 'DELETE', "/defect-files/{$log}")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:not-yours');
        $this->travel(16)->minutes();
        $this->as($this->me, 'DELETE', "/defect-files/{$log}")->assertConflict();
        $path = (new StoredFile(['sha256' => hash('sha256', 'soon gone')]))->path();
        $soon = $this->add($dev, 'soon gone', 'soon.log')->assertCreated()->json('id');
        self::assertTrue($this->storage()->exists($path));
        $this->as($dev, 'DELETE', "/defect-files/{$soon}")
            ->assertOk()
            ->assertJsonCount(1, 'files');
        self::assertFalse($this->storage()->exists($path), 'nothing shows it any more');
    }

    public function test_a_file_is_taken_out_for_good_with_its_trace_and_so_are_words_and_files_together(): void
    {
        $secret = self::png(8, 3);
        $path = (new StoredFile(['sha256' => hash('sha256', $secret)]))->path();
        $comment = (string) Str::uuid7();
        $own = $this->add($this->me, $secret, 'tel 555 0100.png')->json('id');
        $this->add($this->me, $secret, 'again.png', ['comment' => $comment])->assertCreated();
        $this->say($this->me, ['id' => $comment, 'text' => 'Her number is in it'])->assertCreated();

        $this->as($this->me, 'POST', "/defect-files/{$own}/removals", ['reason' => 'Once more'])->assertForbidden();
        $gone = $this->as($this->admin, 'POST', "/defect-files/{$own}/removals", ['reason' => 'A number of somebody'])->assertOk();
        $gone->assertJsonPath('files.0.removed.reason', 'A number of somebody')->assertJsonPath('files.0.url', '');
        self::assertStringNotContainsString('555 0100', (string) $gone->getContent());
        $this->actingAs($this->me)
            ->get("/api/v1/defect-files/{$own}/file")
            ->assertNotFound();
        self::assertTrue($this->storage()->exists($path), 'it is said there as well');
        $this->as($this->admin, 'POST', "/defect-files/{$own}/removals", ['reason' => 'Once more'])->assertConflict();

        $this->as($this->admin, 'POST', "/defect-comments/{$comment}/removals", ['reason' => 'The same number'])->assertOk();
        self::assertFalse($this->storage()->exists($path));
        self::assertSame(3, DB::table('removals')->where('actor_id', $this->admin->id)->count());
    }

    public function test_what_is_taken_out_of_a_walk_is_taken_out_of_the_talk_too(): void
    {
        $picture = self::png(10, 6);
        $attempt = $this->walked($this->world->entry($this->me), $this->me);
        $evidence = $this->upload($this->me, $attempt, $picture, ['round' => 1, 'step' => 1])
            ->assertCreated()
            ->json('evidence.id');
        $file = $this->add($this->me, $picture, 'seen.png')->json('id');
        $this->as($this->admin, 'POST', "/evidence/{$evidence}/removals", ['reason' => 'A face'])->assertSuccessful();
        $this->actingAs($this->me)
            ->get("/api/v1/defect-files/{$file}/file")
            ->assertNotFound();
        $this->as($this->me, 'GET', '/defects/TST-D1')->assertJsonPath('files.0.removed.reason', 'A face');
        self::assertFalse($this->storage()->exists((new StoredFile(['sha256' => hash('sha256', $picture)]))->path()));
    }

    public function test_what_was_said_at_a_move_is_taken_out_and_the_move_stays(): void
    {
        $word = 'Ask her at 555 0100 in the evening';
        $this->as($this->me, 'POST', '/defects/TST-D1/moves', ['state' => 'rejected', 'note' => $word])->assertOk();
        $id = collect((array) $this->as($this->me, 'GET', '/defects/TST-D1')->json('history'))->firstWhere('note', $word)['id'];
        $path = "/defects/TST-D1/changes/{$id}/removals";
        $this->as($this->world->lead(), 'POST', $path, ['reason' => 'Once more'])->assertForbidden();
        $gone = $this->as($this->admin, 'POST', $path, ['reason' => 'A number'])
            ->assertOk()
            ->assertJsonPath('defect.state', 'rejected');
        self::assertStringNotContainsString('555 0100', (string) $gone->getContent());
        self::assertSame(0, DB::table('notices')->where('text', 'like', '%555 0100%')->count());
        $this->as($this->admin, 'POST', $path, ['reason' => 'Once more'])->assertConflict();
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'Another'])->assertCreated();
        $this->as($this->admin, 'POST', "/defects/TST-D2/changes/{$id}/removals", ['reason' => 'Once more'])->assertNotFound();
    }

    public function test_files_of_words_that_nobody_said_go_after_a_week_and_nobody_puts_files_into_anothers_words(): void
    {
        $comment = (string) Str::uuid7();
        $this->add($this->me, 'mine', 'mine.log', ['comment' => $comment])->assertCreated();
        $other = $this->world->person('otto');
        $this->add($other, 'theirs', 'theirs.log', ['comment' => $comment])->assertCreated();
        $this->say($this->me, ['id' => $comment, 'text' => 'Look'])->assertCreated();
        $said = $this->as($other, 'GET', '/defects/TST-D1')->json('comments.0.files');
        self::assertSame(['mine.log'], array_column($said, 'name'));

        $unsaid = (string) Str::uuid7();
        $this->add($this->me, 'left behind', 'left.log', ['comment' => $unsaid])->assertCreated();
        $path = (new StoredFile(['sha256' => hash('sha256', 'left behind')]))->path();
        Artisan::call('lucid:tidy');
        self::assertTrue($this->storage()->exists($path), 'it may be said yet');
        $this->travel(8)->days();
        Artisan::call('lucid:tidy');
        self::assertFalse($this->storage()->exists($path));
        self::assertSame(2, DB::table('defect_files')->count());
    }

    public function test_files_go_along_to_the_tracker_with_the_defect_and_with_what_is_said(): void
    {
        TrackerConnection::query()->create([
            'project_id' => $this->world->project->id,
            // An address that is not called: whatever waits for it stays.
            'address' => 'http://169.254.1.1',
            'token' => 'x',
            'secret' => 'x',
            'mapping' => [],
            'sends_each' => false,
        ]);
        $own = $this->add($this->me, 'the log', 'boot.log')->json('id');
        self::assertSame(0, DB::table('tracker_calls')->count(), 'it is not there yet');
        $this->as($this->me, 'POST', '/defects/TST-D1/tracker-calls')->assertSuccessful();
        $comment = (string) Str::uuid7();
        $picture = $this->add($this->me, self::png(4, 4), 'seen.png', ['comment' => $comment])->json('id');
        $this->say($this->me, ['id' => $comment, 'text' => ''])->assertCreated();
        $calls = DB::table('tracker_calls')
            ->orderBy('number')
            ->get(['act', 'payload']);
        self::assertSame(['file', 'attach', 'attach'], $calls->pluck('act')->all());
        self::assertSame(
            [$own, $picture],
            $calls->skip(1)->map(static fn(\stdClass $c): string => json_decode($c->payload)->file)->values()->all(),
        );
    }

    public function test_a_project_that_is_full_takes_no_more_from_here_either(): void
    {
        $this->as($this->admin, 'PUT', '/projects/TST/storage', ['limit_mb' => 1, 'retention_days' => null])->assertOk();
        $this->add($this->me, str_repeat("all is well\n", 60_000), 'one.log')->assertCreated();
        $this->add($this->me, str_repeat("all is fine\n", 60_000), 'two.log')
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['file']]);
    }

    public function test_no_table_that_refers_to_files_is_forgotten_where_their_use_is_looked_up(): void
    {
        $rows = DB::select(
            'select t.relname as at, a.attname as of from pg_constraint c join pg_class t on t.oid = c.conrelid join pg_attribute a on ' .
                "a.attrelid = t.oid and a.attnum = c.conkey[1] where c.contype = 'f' and c.confrelid = 'files'::regclass",
        );
        $known = [];
        foreach (FileUse::PLACES as $table => $columns) {
            foreach ($columns as $column) {
                $known[] = "{$table}.{$column}";
            }
        }
        self::assertEqualsCanonicalizing(array_map(static fn(\stdClass $r): string => "{$r->at}.{$r->of}", $rows), $known);
    }

    /**
     * @param  array<string, string>  $more
     *
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function add(User $by, string $content, string $name, array $more = []): TestResponse
    {
        return $this->as($by, 'POST', '/defects/TST-D1/files', [
            'file' => UploadedFile::fake()->createWithContent($name, $content),
            ...$more,
        ]);
    }

    /**
     * @param  array<string, string>  $body
     *
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function say(User $by, array $body): TestResponse
    {
        return $this->as($by, 'POST', '/defects/TST-D1/comments', $body);
    }

    private function storage(): Filesystem
    {
        return $this->app->make(Filesystem::class);
    }
}
