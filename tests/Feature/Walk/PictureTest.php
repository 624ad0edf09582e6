<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;

/**
 * What is done with pictures, and how long they are kept.
 */
final class PictureTest extends FeatureTestCase
{
    use Walks;

    private string $attempt;

    private User $me;

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
        self::assertSame(0, Artisan::call('lucid:tidy'));
        self::assertTrue(Storage::disk('local')->exists((new StoredFile(['sha256' => $sha]))->path()));
        Carbon::setTestNow(Carbon::now()->addDays(31));
        self::assertSame(0, Artisan::call('lucid:tidy'));
        self::assertFalse(Storage::disk('local')->exists((new StoredFile(['sha256' => $sha]))->path()));
        $this->as($this->me, 'GET', "/attempts/{$this->attempt}")
            ->assertJsonPath('evidence.0.gone', true)
            ->assertJsonPath('removals.0.reason', 'Kept for 30 days')
            ->assertJsonPath('removals.0.by', null);
        $this->as($this->me, 'GET', "/attempts/{$this->attempt}/verification")->assertJsonPath('state', 'whole');
        self::assertSame(0, Artisan::call('lucid:tidy'));
        self::assertSame(1, DB::table('removals')->count());
    }

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person();
        $this->attempt = (string) $this->as($this->me, 'POST', "/entries/{$this->world->entry($this->me)->id}/attempts")->json(
            'attempt.id',
        );
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
}
