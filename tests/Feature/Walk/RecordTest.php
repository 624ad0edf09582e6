<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use LucidStep\App\Models\Role;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/**
 * The record: what is drawn, hidden, compared and taken out of it, its chains, and the bundle that is checked outside.
 */
final class RecordTest extends FeatureTestCase
{
    use Walks;

    private string $attempt;

    private User $me;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person();
        $this->attempt = (string) $this->as($this->me, 'POST', "/entries/{$this->world->entry($this->me)->id}/attempts")->json(
            'attempt.id',
        );
    }

    public function test_a_bundle_is_checked_outside_and_a_changed_byte_anywhere_is_named(): void
    {
        $this->walk();
        $bundle = $this->as($this->me, 'GET', "/attempts/{$this->attempt}/bundle")->assertOk();
        $zip = $this->zip();
        self::assertSame(hash('sha256', $zip), $bundle->headers->get('X-Content-SHA256'));
        self::assertSame($zip, $this->zip(), 'the same record, the same bytes');
        $dir = $this->unpack($zip);
        [$code, $said] = $this->check($dir);
        self::assertSame(0, $code, $said);
        self::assertStringContainsString('Whole: 6 events, 1 files of evidence.', $said);
        self::assertStringContainsString((string) DB::table('attempts')->where('id', $this->attempt)->value('head'), $said);

        mt_srand(3);
        $tried = 0;
        foreach (array_filter(explode("\n", trim((string) shell_exec('cd ' . escapeshellarg($dir) . ' && find . -type f')))) as $file) {
            $name = substr($file, 2);
            $whole = (string) file_get_contents("{$dir}/{$name}");
            foreach ([0, strlen($whole) - 1, mt_rand(0, strlen($whole) - 1), mt_rand(0, strlen($whole) - 1)] as $at) {
                // A changed checker is found by the one that was sent along with the others, so it is run from elsewhere.
                $changed = $whole;
                $changed[$at] = chr(ord($changed[$at]) ^ 1);
                file_put_contents("{$dir}/{$name}", $changed);
                [$code, $said] = $this->check($dir, resource_path('record/check.php'));
                self::assertSame(1, $code, "{$name} at {$at}");
                self::assertStringContainsString($name, $said, "{$name} at {$at}");
                $tried++;
            }
            file_put_contents("{$dir}/{$name}", $whole);
        }
        self::assertGreaterThan(30, $tried);
        // A line taken out, one added, a file taken away, one put in.
        $events = (string) file_get_contents("{$dir}/events.jsonl");
        $lines = explode("\n", trim($events));
        foreach (
            [implode("\n", array_slice($lines, 0, -1)) . "\n", implode("\n", [$lines[0], ...array_slice($lines, 2)]) . "\n"]
            as $other
        ) {
            file_put_contents("{$dir}/events.jsonl", $other);
            self::assertSame(1, $this->check($dir)[0]);
        }
        file_put_contents("{$dir}/events.jsonl", $events);
        file_put_contents("{$dir}/extra.txt", 'x');
        self::assertStringContainsString('extra.txt does not belong', $this->check($dir)[1]);
        exec('rm -rf ' . escapeshellarg($dir));
    }

    public function test_a_file_taken_out_leaves_its_trace_and_nothing_else(): void
    {
        [$id, $sha] = $this->walk();
        $admin = $this->world->person('admin', Role::Admin);
        $this->as($this->world->lead(), 'POST', "/evidence/{$id}/removals", ['reason' => 'A face'])->assertForbidden();
        $this->as($admin, 'POST', "/evidence/{$id}/removals", ['reason' => ' '])->assertUnprocessable();
        $this->as($admin, 'POST', "/evidence/{$id}/removals", ['reason' => 'A face is on it'])->assertNoContent();
        $file = new StoredFile(['sha256' => $sha]);
        self::assertFalse(Storage::disk('local')->exists($file->path()) || Storage::disk('local')->exists($file->thumbnailPath()));
        $this->as($this->me, 'GET', "/evidence/{$id}/file")->assertNotFound();
        $this->as($this->me, 'GET', "/evidence/{$id}/thumbnail")->assertNotFound();
        $this->as($this->me, 'GET', "/attempts/{$this->attempt}")
            ->assertJsonPath('evidence.0.gone', true)
            ->assertJsonPath('removals.0.reason', 'A face is on it')
            ->assertJsonPath('removals.0.by.name', 'Admin');
        $this->as($this->me, 'GET', "/attempts/{$this->attempt}/verification")
            ->assertJsonPath('state', 'whole')
            ->assertJsonPath('removed', [$sha]);
        $dir = $this->unpack($this->zip());
        [$code, $said] = $this->check($dir);
        self::assertSame(0, $code, $said);
        self::assertStringContainsString('was taken out (A face is on it)', $said);
        self::assertStringContainsString('evidence_removed', (string) file_get_contents("{$dir}/cycle-events.jsonl"));
        exec('rm -rf ' . escapeshellarg($dir));
    }

    public function test_content_that_another_project_shows_stays_there_only(): void
    {
        [$id, $sha] = $this->walk();
        $other = new \LucidStep\Tests\Support\World('OTH');
        $you = $other->person('far');
        $attempt = (string) $this->as($you, 'POST', "/entries/{$other->entry($you)->id}/attempts")->json('attempt.id');
        $theirs = $this->upload($you, $attempt, self::png(30, 20))->assertCreated()->json('evidence.id');
        $this->as($this->world->person('admin', Role::Admin), 'POST', "/evidence/{$id}/removals", [
            'reason' => 'A face',
        ])->assertNoContent();
        self::assertTrue(Storage::disk('local')->exists((new StoredFile(['sha256' => $sha]))->path()));
        $this->as($this->me, 'GET', "/evidence/{$id}/file")->assertNotFound();
        $this->as($you, 'GET', "/evidence/{$theirs}/file")->assertOk();
        $this->as($you, 'GET', "/attempts/{$attempt}/verification")
            ->assertJsonPath('state', 'open')
            ->assertJsonPath('removed', []);
    }

    public function test_a_text_taken_out_is_nowhere_any_more_and_the_chain_holds(): void
    {
        $this->as($this->me, 'POST', "/attempts/{$this->attempt}/notes", [
            'round' => 1,
            'step' => 1,
            'note' => 'the code is swan-lake-99',
        ])->assertOk();
        $this->as($this->me, 'POST', "/attempts/{$this->attempt}/notes", [
            'round' => 1,
            'step' => 1,
            'note' => 'the code is written down',
        ])->assertOk();
        $this->as($this->me, 'POST', "/attempts/{$this->attempt}/verdicts", [
            'round' => 1,
            'step' => 2,
            'verdict' => 'fail',
            'happened' => 'the code is swan-lake-99',
        ])->assertOk();
        $this->as(
            $this->me,
            'POST',
            '/projects/TST/defects',
            [
                'title' => 'Seen: the code is swan-lake-99',
                'body' => 'the code is swan-lake-99, twice',
                'attempt_id' => $this->attempt,
                'round' => 1,
                'step' => 2,
            ],
            ['Idempotency-Key' => (string) Str::uuid7()],
        )->assertCreated();
        $this->as($this->me, 'POST', "/attempts/{$this->attempt}/finish", [])->assertOk();
        $admin = $this->world->person('admin', Role::Admin);
        $this->as($this->me, 'POST', "/attempts/{$this->attempt}/removals", ['sequence' => 2, 'reason' => 'A code'])->assertForbidden();
        $this->as($admin, 'POST', "/attempts/{$this->attempt}/removals", ['sequence' => 1, 'reason' => 'A code'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['sequence']]);
        $this->as($admin, 'POST', "/attempts/{$this->attempt}/removals", ['sequence' => 2, 'reason' => 'A code'])->assertNoContent();
        $this->as($admin, 'POST', "/attempts/{$this->attempt}/removals", ['sequence' => 2, 'reason' => 'A code'])->assertConflict();
        foreach (['events', 'step_results', 'attempts', 'defects', 'late_commands'] as $table) {
            self::assertStringNotContainsString('swan-lake', (string) json_encode(DB::table($table)->get()), $table);
        }
        self::assertStringContainsString('written down', (string) json_encode(DB::table('step_results')->get()));
        $this->as($this->me, 'GET', "/attempts/{$this->attempt}/verification")
            ->assertJsonPath('state', 'whole')
            ->assertJsonPath('removed', ['event 2', 'event 3', 'event 4']);
        $dir = $this->unpack($this->zip());
        [$code, $said] = $this->check($dir);
        self::assertSame(0, $code, $said);
        self::assertStringContainsString('the text of event 4 was taken out (A code)', $said);
        self::assertSame('', (string) shell_exec('grep -rl swan-lake ' . escapeshellarg($dir)));
        exec('rm -rf ' . escapeshellarg($dir));
        $this->expectExceptionMessage('append-only');
        DB::table('events')
            ->where('attempt_id', $this->attempt)
            ->where('sequence', 1)
            ->update(['bytes' => '']);
    }

    public function test_drawing_stays_apart_hiding_does_not(): void
    {
        $plain = self::png(60, 40, 0x336699);
        $id = (string) $this->upload($this->me, $this->attempt, $plain)->assertCreated()->json('evidence.id');
        $shapes = [
            'shapes' => [
                ['kind' => 'box', 'x' => 1, 'y' => 2, 'width' => 10, 'height' => 8],
                ['kind' => 'pin', 'x' => 5, 'y' => 5, 'number' => 1],
            ],
            'width' => 60,
            'height' => 40,
        ];
        $this->as($this->me, 'POST', "/evidence/{$id}/markups", ['markup' => 'no json'])->assertUnprocessable();
        $this->upload(
            $this->me,
            $this->attempt,
            self::png(60, 40, 0xff0000),
            ['markup' => json_encode($shapes)],
            "/evidence/{$id}/markups",
        )->assertOk();
        $detail = $this->as($this->me, 'GET', "/attempts/{$this->attempt}")
            ->assertJsonPath('evidence.0.sha256', hash('sha256', $plain))
            ->assertJsonPath('evidence.0.markup.shapes.1.kind', 'pin');
        self::assertSame(
            self::png(60, 40, 0xff0000),
            $this->as($this->me, 'GET', str_replace('/api/v1', '', (string) $detail->json('evidence.0.marked_url')))
                ->assertOk()
                ->streamedContent(),
        );
        // Hidden by whoever captured it: the old pixels are gone from the storage.
        $black = self::png(60, 40, 0x000000);
        $this->upload($this->me, $this->attempt, $black, [], "/evidence/{$id}/redactions")->assertOk();
        self::assertFalse(Storage::disk('local')->exists((new StoredFile(['sha256' => hash('sha256', $plain)]))->path()));
        $this->as($this->me, 'GET', "/attempts/{$this->attempt}")
            ->assertJsonPath('evidence.0.sha256', hash('sha256', $black))
            ->assertJsonPath('evidence.0.markup', null)
            ->assertJsonPath('removals.0.reason', 'Redacted by whoever captured it');
        $this->as($this->me, 'POST', "/evidence/{$id}/moves", ['round' => 1, 'step' => 3])->assertOk();
        $this->as($this->me, 'GET', "/attempts/{$this->attempt}")->assertJsonPath('evidence.0.step', 3);
        $this->as($this->me, 'POST', "/attempts/{$this->attempt}/finish", ['verdict' => 'pass', 'note' => 'looked at'])->assertOk();
        $this->as($this->me, 'GET', "/attempts/{$this->attempt}/verification")->assertJsonPath('state', 'whole');
        $this->upload($this->me, $this->attempt, self::png(60, 40, 0x00ff00), [], "/evidence/{$id}/redactions")->assertStatus(202);
    }

    public function test_a_picture_is_compared_with_its_reference(): void
    {
        $reference = self::png(100, 50, 0xffffff);
        $sha = (string) $this->upload($this->me, '', $reference, [], '/projects/TST/files')->assertCreated()->json('sha256');
        $id = (string) $this->upload($this->me, $this->attempt, self::png(100, 50, 0xffffff, [10, 10, 29, 19]))
            ->assertCreated()
            ->json('evidence.id');
        $this->as($this->me, 'GET', "/evidence/{$id}/comparison?reference=" . str_repeat('a', 64))->assertUnprocessable();
        $this->as($this->me, 'GET', "/evidence/{$id}/comparison?reference={$sha}")
            ->assertOk()
            ->assertJsonPath('differing', 200)
            ->assertJsonPath('share', 0.04)
            ->assertJsonPath('around', ['x' => 10, 'y' => 10, 'width' => 20, 'height' => 10]);
        self::assertNotFalse(
            getimagesizefromstring(
                (string) $this->as($this->me, 'GET', "/evidence/{$id}/difference?reference={$sha}")
                    ->assertOk()
                    ->getContent(),
            ),
        );
        $this->as($this->me, 'PUT', "/projects/TST/files/{$sha}/ignored-regions", [
            'regions' => [['x' => 0, 'y' => 0, 'width' => 0, 'height' => 4]],
        ])->assertUnprocessable();
        $this->as($this->me, 'PUT', "/projects/TST/files/{$sha}/ignored-regions", [
            'regions' => [['x' => 0, 'y' => 0, 'width' => 20, 'height' => 50]],
        ])->assertNoContent();
        $this->as($this->me, 'GET', "/evidence/{$id}/comparison?reference={$sha}")
            ->assertJsonPath('differing', 100)
            ->assertJsonPath('compared', 4000)
            ->assertJsonPath('ignored.0.width', 20);
        $this->as($this->me, 'POST', "/evidence/{$id}/comparisons", ['reference' => $sha])->assertOk();
        $this->as($this->me, 'GET', "/attempts/{$this->attempt}")->assertJsonPath('evidence.0.compared.differing', 100);
        $this->as($this->me, 'GET', "/attempts/{$this->attempt}/verification")->assertJsonPath('state', 'open');
    }

    public function test_links_recordings_limits_and_what_is_not_taken(): void
    {
        $link = [
            'id' => (string) Str::uuid7(),
            'link' => 'https://status.skerrywick.test/quay',
            'source' => 'link',
            'round' => 1,
            'step' => 1,
        ];
        $this->as($this->me, 'POST', "/attempts/{$this->attempt}/evidence", [...$link, 'link' => 'javascript:alert(1)'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['link']]);
        $this->as($this->me, 'POST', "/attempts/{$this->attempt}/evidence", $link)
            ->assertCreated()
            ->assertJsonPath('evidence.link', $link['link'])
            ->assertJsonPath('evidence.sha256', null)
            ->assertJsonPath('evidence.url', '');
        $webm =
            "\x1A\x45\xDF\xA3\x9F\x42\x86\x81\x01\x42\xF7\x81\x01\x42\xF2\x81\x04\x42\xF3\x81\x08\x42\x82\x84webm" . str_repeat('x', 200);
        $this->upload($this->me, $this->attempt, $webm, ['source' => 'recording'], null, 'clip.webm')
            ->assertCreated()
            ->assertJsonPath('evidence.media_type', 'video/webm');
        $this->upload($this->me, $this->attempt, 'not a clip', [], null, 'clip.webm')
            ->assertUnprocessable()
            ->assertJsonPath('errors.file.0', 'The file is named .webm but is no such recording.');
        config(['lucid.evidence.max_recording_bytes' => 100]);
        $this->upload($this->me, $this->attempt, $webm, [], null, 'clip.webm')->assertUnprocessable();
        // A bomb: a small file that says it is 30,000 pixels wide.
        $bomb = substr_replace(self::png(10, 10), pack('NN', 30_000, 30_000), 16, 8);
        $this->upload($this->me, $this->attempt, $bomb)
            ->assertUnprocessable()
            ->assertJsonPath('errors.file.0', 'The picture has 30000 × 30000 pixels; at most 60 megapixels are taken.');
        $this->upload($this->me, $this->attempt, substr_replace(self::png(10, 10), pack('NN', 20_000, 1000), 16, 8))
            ->assertUnprocessable()
            ->assertJsonPath('errors.file.0', 'The picture has 20000 × 1000 pixels; no side may have more than 16,384.');
        $admin = $this->world->person('admin', Role::Admin);
        $this->as($this->world->lead(), 'PUT', '/projects/TST/storage', ['limit_mb' => 1, 'retention_days' => null])->assertForbidden();
        $this->as($admin, 'PUT', '/projects/TST/storage', ['limit_mb' => 0])->assertUnprocessable();
        $this->as($admin, 'PUT', '/projects/TST/storage', ['limit_mb' => 1, 'retention_days' => 30])
            ->assertOk()
            ->assertJsonPath('storage.limit_mb', 1);
        $this->upload($this->me, $this->attempt, str_repeat("12:00 all is well at the quay\n", 40_000), [], null, 'long.log')
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['file']]);
    }

    public function test_evidence_is_kept_as_long_as_the_project_says(): void
    {
        [$id, $sha] = $this->walk();
        $this->world->project->update(['retention_days' => 30]);
        $this->artisan('lucid:tidy')->assertSuccessful();
        self::assertTrue(Storage::disk('local')->exists((new StoredFile(['sha256' => $sha]))->path()));
        Carbon::setTestNow(Carbon::now()->addDays(31));
        $this->artisan('lucid:tidy')->assertSuccessful();
        self::assertFalse(Storage::disk('local')->exists((new StoredFile(['sha256' => $sha]))->path()));
        $this->as($this->me, 'GET', "/attempts/{$this->attempt}")
            ->assertJsonPath('evidence.0.gone', true)
            ->assertJsonPath('removals.0.reason', 'Kept for 30 days')
            ->assertJsonPath('removals.0.by', null);
        $this->as($this->me, 'GET', "/attempts/{$this->attempt}/verification")->assertJsonPath('state', 'whole');
        $this->artisan('lucid:tidy')->assertSuccessful();
        self::assertSame(1, DB::table('removals')->count());
    }

    public function test_the_chain_of_the_cycle_holds_every_end_and_what_came_after(): void
    {
        $this->walk();
        $key = $this->world->cycle->key;
        $entry = (string) DB::table('attempts')->where('id', $this->attempt)->value('entry_id');
        $this->as($this->me, 'POST', "/attempts/{$this->attempt}/time", ['time' => '12m'])->assertOk();
        $this->as($this->world->lead(), 'POST', "/entries/{$entry}/retests", ['reason' => 'Once more, please'])->assertCreated();
        $this->as($this->world->lead(), 'POST', "/cycles/{$key}/sign-offs", ['note' => 'As agreed'])->assertSuccessful();
        self::assertSame(
            ['attempt_finished', 'time_corrected', 'retest_asked', 'signed_off'],
            DB::table('cycle_events')->orderBy('sequence')->pluck('kind')->all(),
        );
        $this->as($this->me, 'GET', "/cycles/{$key}/verification")
            ->assertJsonPath('state', 'whole')
            ->assertJsonPath('events', 4);
        self::assertStringContainsString(
            'asks for a retest of TST-C1: Once more, please',
            (string) $this->as($this->me, 'GET', '/notices')->getContent(),
        );
        DB::statement('alter table cycle_events disable trigger cycle_events_append_only');
        DB::table('cycle_events')
            ->where('sequence', 2)
            ->update(['payload' => '{"to_ms": 1}']);
        $this->as($this->me, 'GET', "/cycles/{$key}/verification")->assertJson(['state' => 'broken', 'at' => 2]);
        DB::statement('alter table cycle_events enable trigger cycle_events_append_only');
    }

    private function zip(): string
    {
        $answer = $this->as($this->me, 'GET', "/attempts/{$this->attempt}/bundle")->assertOk()->baseResponse;
        self::assertInstanceOf(BinaryFileResponse::class, $answer);

        return $answer->getFile()->getContent();
    }

    /**
     * @return array{string, string} the evidence and its hash
     */
    private function walk(): array
    {
        $answer = $this->upload($this->me, $this->attempt, self::png(30, 20), ['round' => 1, 'step' => 1]);
        foreach ([1, 2, 3] as $step) {
            $this->as($this->me, 'POST', "/attempts/{$this->attempt}/verdicts", [
                'round' => 1,
                'step' => $step,
                'verdict' => 'pass',
            ])->assertOk();
        }
        $this->as($this->me, 'POST', "/attempts/{$this->attempt}/finish", [])->assertOk();

        return [(string) $answer->assertCreated()->json('evidence.id'), (string) $answer->json('evidence.sha256')];
    }

    private function unpack(string $zip): string
    {
        $dir = sys_get_temp_dir() . '/lucid-bundle-test-' . bin2hex(random_bytes(4));
        mkdir($dir);
        file_put_contents("{$dir}.zip", $zip);
        $archive = new \ZipArchive();
        self::assertTrue($archive->open("{$dir}.zip", \ZipArchive::CHECKCONS));
        $archive->extractTo($dir);
        $archive->close();
        unlink("{$dir}.zip");

        return $dir;
    }

    /**
     * @return array{int, string}
     */
    private function check(string $dir, ?string $checker = null): array
    {
        exec(
            escapeshellarg(PHP_BINARY) . ' ' . escapeshellarg($checker ?? "{$dir}/check.php") . ' ' . escapeshellarg($dir) . ' 2>&1',
            $lines,
            $code,
        );

        return [$code, implode("\n", $lines)];
    }
}
