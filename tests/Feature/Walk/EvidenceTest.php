<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\StoredFile;
use LucidStep\Tests\Support\FeatureTestCase;
use PHPUnit\Framework\Attributes\DataProvider;

final class EvidenceTest extends FeatureTestCase
{
    private string $attempt;

    protected function setUp(): void
    {
        parent::setUp();
        $me = $this->world->person();
        $this->attempt = (string) $this->as($me, 'POST', "/entries/{$this->world->entry($me)->id}/attempts")->json('attempt.id');
    }

    public function test_a_picture_is_kept_by_its_content_and_shown_small_and_whole(): void
    {
        $png = self::png(1200, 800);
        $answer = $this->upload($png, 'fare.png', ['step' => '2', 'round' => '1', 'counter' => '7', 'source' => 'paste'])->assertCreated();
        $answer
            ->assertJsonPath('evidence.media_type', 'image/png')
            ->assertJsonPath('evidence.width', 1200)
            ->assertJsonPath('evidence.sha256', hash('sha256', $png));
        $id = $answer->json('evidence.id');
        $whole = $this->as($this->world->person(), 'GET', "/evidence/{$id}/file")
            ->assertOk()
            ->assertHeader('Content-Type', 'image/png')
            ->assertHeader('X-Content-Type-Options', 'nosniff');
        self::assertSame($png, $whole->streamedContent());
        self::assertStringContainsString('sandbox', (string) $whole->headers->get('Content-Security-Policy'));
        $small = getimagesizefromstring(
            $this->as($this->world->person(), 'GET', "/evidence/{$id}/thumbnail")
                ->assertHeader('Content-Type', 'image/webp')
                ->streamedContent(),
        );
        self::assertSame([480, 320], [$small[0] ?? 0, $small[1] ?? 0]);
        $this->upload($png, 'again.png')->assertCreated();
        self::assertSame(1, StoredFile::query()->count(), 'the same content is kept once');
        $this->as($this->world->person(), 'GET', "/attempts/{$this->attempt}")->assertJsonCount(2, 'evidence');
    }

    public function test_a_changed_or_lost_file_shows_in_the_record(): void
    {
        $sha = $this->upload(self::png(20, 20), 'a.png')->json('evidence.sha256');
        $path = (new StoredFile(['sha256' => $sha]))->path();
        $me = $this->world->person();
        $this->as($me, 'GET', "/attempts/{$this->attempt}/verification")->assertJsonPath('state', 'open');
        Storage::disk('local')->put($path, 'something else');
        $this->as($me, 'GET', "/attempts/{$this->attempt}/verification")->assertJson(['state' => 'broken', 'at' => 2]);
        Storage::disk('local')->delete($path);
        $this->as($me, 'GET', "/attempts/{$this->attempt}/verification")->assertJson(['state' => 'broken', 'at' => 2]);
    }

    public function test_a_log_is_a_download(): void
    {
        $id = $this->upload("12:00 <script>alert(1)</script>\n", 'page.log')
            ->assertCreated()
            ->assertJsonPath('evidence.media_type', 'text/plain')
            ->json('evidence.id');
        $file = $this->as($this->world->person(), 'GET', "/evidence/{$id}/file")->assertOk();
        self::assertStringStartsWith('attachment', (string) $file->headers->get('Content-Disposition'));
        $this->as($this->world->person(), 'GET', "/evidence/{$id}/thumbnail")->assertNotFound();
    }

    /**
     * Whatever somebody calls a file later on, it is saved as what it holds, and never as something that runs.
     */
    public function test_a_file_is_saved_under_a_name_that_fits_its_content(): void
    {
        $me = $this->world->person();
        $log = (string) $this->upload("12:00 started\n", 'page.log')->json('evidence.id');
        $picture = (string) $this->upload(self::png(4, 4), 'quay.png')->json('evidence.id');
        $names = [
            [$log, 'page.log', 'page.log'],
            [$log, 'page.bat', 'page.bat.txt'],
            [$log, '../../page.HTML', '..-..-page.HTML.txt'],
            [$log, 'LOG', 'LOG.txt'],
            [$picture, 'quay.exe', 'quay.exe.png'],
            [$picture, 'QUAY.PNG', 'QUAY.PNG'],
        ];
        foreach ($names as [$id, $called, $saved]) {
            DB::table('evidence')
                ->where('id', $id)
                ->update(['name' => $called]);
            $header = (string) $this->as($me, 'GET', "/evidence/{$id}/file")
                ->assertOk()
                ->headers->get('Content-Disposition');
            self::assertSame($saved, self::fileName($header), $header);
        }
    }

    private static function fileName(string $header): string
    {
        return 1 === preg_match("/filename\\*=utf-8''(.+)$/", $header, $m)
            ? rawurldecode($m[1])
            : (1 === preg_match('/filename="?([^"]+)"?$/', $header, $m)
                ? $m[1]
                : '');
    }

    /**
     * @return iterable<string, array{string, string, string}>
     */
    public static function bad(): iterable
    {
        yield 'empty' => ['', 'a.png', 'is empty'];
        yield 'text named as a picture' => ['hello', 'a.png', 'is no such picture'];
        yield 'a damaged picture' => [substr(self::png(300, 300), 0, 200), 'a.png', 'damaged'];
        yield 'a page named as a document' => ['<html></html>', 'a.pdf', 'is named .pdf but is no such file'];
        yield 'a program named as a page' => ["\x7FELF\x02\x01\0\0", 'a.html', 'is named .html but is no such file'];
        yield 'an archive named as a recording' => ["PK\x03\x04 and more", 'a.mp4', 'is no such recording'];
        yield 'a program named as a log' => ["\x7FELF\x02\x01\0\0", 'a.log', 'does not hold plain text'];
        yield 'not UTF-8' => ["caf\xE9", 'a.txt', 'does not hold plain text'];
    }

    #[DataProvider('bad')]
    public function test_bad_files_are_refused_with_a_reason_and_leave_nothing(string $content, string $name, string $why): void
    {
        $answer = $this->upload($content, $name)->assertUnprocessable();
        self::assertStringContainsString($why, (string) $answer->json('errors.file.0'));
        self::assertSame(0, StoredFile::query()->count());
    }

    /**
     * @return iterable<string, array{string, string, string, string}> content, name, media type, and the name it is saved under
     */
    public static function files(): iterable
    {
        yield 'a document' => ['%PDF-1.7 …', 'report.PDF', 'application/pdf', 'report.PDF'];
        yield 'a page' => ['<script>alert(1)</script>', 'page.html', 'text/html', 'page.html'];
        yield 'a drawing with script' => ['<svg xmlns="http://www.w3.org/2000/svg"/>', 'a.svg', 'image/svg+xml', 'a.svg'];
        yield 'traffic' => ['{"log":{}}', 'a.har', 'application/json', 'a.har'];
        yield 'an archive' => ["PK\x03\x04\0\0", 'a.zip', 'application/zip', 'a.zip'];
        yield 'a sheet' => ["PK\x03\x04\0\0", 'a.xlsx', 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', 'a.xlsx'];
        yield 'a picture of a telephone' => ["\0\0\0\x18ftypheic\0\0\0\0", 'a.heic', 'image/heic', 'a.heic'];
        yield 'nobody knows what' => ["\0\1\2", 'state.snap', 'application/octet-stream', 'state.snap'];
        yield 'a program' => ["MZ\0\1", 'setup.exe', 'application/octet-stream', 'setup.exe.bin'];
        yield 'bytes without an end' => ["\0\1\2", 'core', 'application/octet-stream', 'core'];
    }

    #[DataProvider('files')]
    public function test_any_file_is_kept_and_leaves_as_harmless_bytes(string $content, string $name, string $type, string $saved): void
    {
        $evidence = $this->upload($content, $name)
            ->assertCreated()
            ->assertJsonPath('evidence.media_type', $type)
            ->assertJsonPath('evidence.name', $name)
            ->assertJsonPath('evidence.bytes', strlen($content))
            ->json('evidence');
        self::assertSame(hash('sha256', $content), $evidence['sha256']);
        $file = $this->as($this->world->person(), 'GET', "/evidence/{$evidence['id']}/file")->assertOk();
        self::assertSame('application/octet-stream', $file->headers->get('Content-Type'));
        self::assertStringStartsWith('attachment', (string) $file->headers->get('Content-Disposition'));
        self::assertSame($saved, self::fileName((string) $file->headers->get('Content-Disposition')));
        self::assertSame("default-src 'none'; sandbox", $file->headers->get('Content-Security-Policy'));
        self::assertSame('nosniff', $file->headers->get('X-Content-Type-Options'));
        self::assertSame($content, $file->streamedContent());
    }

    public function test_a_picture_under_a_wrong_name_is_taken_for_what_it_is(): void
    {
        $this->upload(self::png(10, 10), 'notes.txt')->assertCreated()->assertJsonPath('evidence.media_type', 'image/png');
    }

    public function test_limits(): void
    {
        config(['lucid.evidence.max_bytes' => 500]);
        self::assertStringContainsString(
            'at most',
            (string) $this->upload(str_repeat('x', 501), 'a.txt')->assertUnprocessable()->json('errors.file.0'),
        );
        config(['lucid.evidence.max_bytes' => 5_000_000, 'lucid.evidence.max_pixels' => 10_000]);
        self::assertStringContainsString(
            'pixels',
            (string) $this->upload(self::png(101, 100), 'a.png')->assertUnprocessable()->json('errors.file.0'),
        );
        $this->as($this->world->person(), 'POST', "/attempts/{$this->attempt}/evidence", ['id' => (string) Str::uuid7()])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['file']]);
    }

    public function test_captioned_and_removed_until_the_attempt_is_finished(): void
    {
        $me = $this->world->person();
        $id = $this->upload(self::png(10, 10), 'a.png')->json('evidence.id');
        $kept = $this->upload(self::png(12, 10), 'b.png')->json('evidence.id');
        $this->as($this->world->person('other'), 'PATCH', "/evidence/{$id}", ['caption' => 'Not mine'])->assertForbidden();
        $this->as($me, 'PATCH', "/evidence/{$id}", ['caption' => 'The fare'])->assertOk();
        $this->as($me, 'GET', "/attempts/{$this->attempt}")->assertJsonPath('evidence.0.caption', 'The fare');
        $this->as($me, 'DELETE', "/evidence/{$id}")->assertOk();
        $this->as($me, 'GET', "/attempts/{$this->attempt}")->assertJsonCount(1, 'evidence');
        $this->as($me, 'POST', "/attempts/{$this->attempt}/finish", ['verdict' => 'pass', 'note' => 'enough seen'])->assertOk();
        $this->as($me, 'DELETE', "/evidence/{$kept}")
            ->assertStatus(202)
            ->assertJsonPath('applied', false);
        $this->as($me, 'GET', "/attempts/{$this->attempt}")->assertJsonCount(1, 'evidence');
        $this->as($me, 'GET', "/attempts/{$this->attempt}/verification")->assertJsonPath('state', 'whole');
    }

    /**
     * @param  array<string, mixed>  $fields
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function upload(string $content, string $name, array $fields = []): TestResponse
    {
        return $this->actingAs($this->world->person())->post(
            "/api/v1/attempts/{$this->attempt}/evidence",
            [
                'id' => (string) Str::uuid7(),
                'file' => UploadedFile::fake()->createWithContent($name, $content),
                ...$fields,
            ],
            ['Accept' => 'application/json', 'Idempotency-Key' => (string) Str::uuid7()],
        );
    }

    private static function png(int $width, int $height): string
    {
        $picture = imagecreatetruecolor(max(1, $width), max(1, $height));
        imagefilledellipse($picture, 5, 5, 8, 8, 0xf0a81c);
        for ($i = 0; $i < 400; $i++) {
            imagesetpixel($picture, ($i * 37) % $width, ($i * 91) % $height, $i * 40_503);
        }
        ob_start();
        imagepng($picture);

        return (string) ob_get_clean();
    }
}
