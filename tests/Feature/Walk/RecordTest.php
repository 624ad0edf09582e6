<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Record\RecordSigner;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Record\Signed;
use LucidStep\Tests\Support\Bundles;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/**
 * The record: what is drawn, hidden, compared and taken out of it, its chains, and the bundle that is checked outside.
 */
final class RecordTest extends FeatureTestCase
{
    use Bundles;
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
                [$code, $said] = $this->check($dir, $this->checker());
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

    /**
     * Whoever makes a whole bundle anew, checker, hashes and signature too, has another key than the one that was told before.
     */
    public function test_a_bundle_made_anew_is_signed_by_somebody_else(): void
    {
        $this->walk();
        $dir = $this->unpack($this->zip());
        $mine = (new RecordSigner())->fingerprint();
        [$code, $said] = $this->check($dir, null, $mine);
        self::assertSame(0, $code, $said);
        self::assertStringContainsString("Signed with the key: {$mine}", $said);
        $whole = (string) file_get_contents("{$dir}/protocol.md");
        $protocol = str_ireplace('pass', 'fail', $whole, $changed);
        self::assertGreaterThan(0, $changed);
        $manifest = str_replace(hash('sha256', $whole), hash('sha256', $protocol), (string) file_get_contents("{$dir}/manifest.json"));
        file_put_contents("{$dir}/protocol.md", $protocol);
        file_put_contents("{$dir}/manifest.json", $manifest);
        file_put_contents("{$dir}/seal.txt", hash('sha256', $manifest) . "\n");
        [$code, $said] = $this->check($dir);
        self::assertSame(1, $code);
        self::assertStringContainsString('signature.txt does not fit manifest.json', $said);
        $this->write($dir, [
            'protocol.md' => $whole,
            'manifest.json' => ($manifest = str_replace(hash('sha256', $protocol), hash('sha256', $whole), $manifest)),
        ]);
        $pair = sodium_crypto_sign_keypair();
        $key = sodium_crypto_sign_publickey($pair);
        $signature = sodium_crypto_sign_detached(Signed::bundle(hash('sha256', $manifest)), sodium_crypto_sign_secretkey($pair));
        $theirs = hash('sha256', $key);
        $write = static fn(string $fingerprint): int|false => file_put_contents(
            "{$dir}/signature.txt",
            "fingerprint {$fingerprint}\nkey " . base64_encode($key) . "\nsignature " . base64_encode($signature) . "\n",
        );
        $write($mine);
        self::assertStringContainsString('the key is not the one of that fingerprint', $this->check($dir)[1]);
        $write($theirs);
        self::assertStringContainsString("Signed with the key: {$theirs}", $this->check($dir)[1], 'nobody told which key it must be');
        self::assertStringContainsString("signed with another key than {$mine}", $this->check($dir, null, $mine)[1]);
        exec('rm -rf ' . escapeshellarg($dir));
    }

    /**
     * Whoever has the key of the installation too cannot make the protocol or the manifest say what the events do not.
     */
    public function test_what_is_written_for_people_is_made_again_from_the_events(): void
    {
        $this->walk();
        $dir = $this->unpack($this->zip());
        $parts = [];
        foreach (['protocol.md', 'manifest.json', 'names.json'] as $name) {
            $parts[$name] = (string) file_get_contents("{$dir}/{$name}");
        }
        $tries = [
            ['protocol.md', '1. **pass**', '1. **fail**', 'protocol.md does not say what the events say'],
            ['names.json', 'NAME', 'Somebody else', 'protocol.md does not say what the events say'],
            ['manifest.json', '"verdict": "pass"', '"verdict": "fail"', 'manifest.json does not say of the attempt'],
            ['manifest.json', '"number": 1', '"number": 2', 'manifest.json does not say of the attempt'],
            ['manifest.json', '"title": "', '"title": "Other: ', 'manifest.json does not say the title of the case'],
        ];
        foreach ($tries as [$name, $from, $to, $why]) {
            $from = 'NAME' === $from ? $this->me->name : $from;
            $other = str_replace($from, $to, $parts[$name], $changed);
            self::assertGreaterThan(0, $changed, $from);
            $manifest = str_replace(hash('sha256', $parts[$name]), hash('sha256', $other), $parts['manifest.json']);
            $this->write($dir, [...$parts, 'manifest.json' => $manifest, $name => $other]);
            [$code, $said] = $this->check($dir);
            self::assertSame(1, $code, $said);
            self::assertStringContainsString("FAULT: {$why}", $said);
            self::assertStringContainsString('1 faults', $said);
        }
        $this->write($dir, $parts);
        self::assertSame(0, $this->check($dir)[0]);
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
        $texts = fn(): array => array_column(
            (array) $this->as($admin, 'GET', "/attempts/{$this->attempt}/record")->json('events'),
            'has_text',
        );
        self::assertSame([false, true, true, true, false, false], $texts(), 'offered where there is one');
        $this->as($admin, 'POST', "/attempts/{$this->attempt}/removals", ['sequence' => 2, 'reason' => 'A code'])->assertNoContent();
        self::assertSame([false, false, true, false, false, false], $texts());
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
        self::becomeOwner();
        $this->expectExceptionMessage('append-only');
        DB::table('events')
            ->where('attempt_id', $this->attempt)
            ->where('sequence', 1)
            ->update(['bytes' => '']);
    }

    public function test_words_taken_out_of_the_chain_of_the_cycle_leave_the_bundle_whole(): void
    {
        $this->walk();
        $key = $this->world->cycle->key;
        $this->as($this->world->lead(), 'POST', "/cycles/{$key}/sign-offs", ['note' => 'swan-lake-99 said so'])->assertSuccessful();
        $line = (array) $this->as($this->me, 'GET', "/cycles/{$key}/log")->json('0');
        $admin = $this->world->person('admin', Role::Admin);
        $this->as($admin, 'POST', "/cycles/{$key}/log/{$line['id']}/removals", ['reason' => 'A code'])->assertOk();
        $dir = $this->unpack($this->zip());
        [$code, $said] = $this->check($dir);
        self::assertSame(0, $code, $said);
        self::assertStringContainsString('cycle-events.jsonl: the text of event 3 was taken out (A code)', $said);
        self::assertSame('', (string) shell_exec('grep -rl swan-lake ' . escapeshellarg($dir)));
        exec('rm -rf ' . escapeshellarg($dir));
        // A text that is gone and of which the chain does not tell is named.
        self::becomeOwner();
        DB::statement('alter table cycle_events disable trigger cycle_events_append_only');
        DB::update("update cycle_events set payload = payload - 'reason', salts = salts - 'reason' where sequence = 4");
        $dir = $this->unpack($this->zip());
        [$code, $said] = $this->check($dir);
        self::assertSame(1, $code);
        self::assertStringContainsString('cycle-events.jsonl: a text of event 4 is gone, and nobody removed it', $said);
        exec('rm -rf ' . escapeshellarg($dir));
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
            ['attempt_started', 'attempt_finished', 'time_corrected', 'retest_asked', 'signed_off'],
            DB::table('cycle_events')->orderBy('sequence')->pluck('kind')->all(),
        );
        $this->as($this->me, 'GET', "/cycles/{$key}/verification")
            ->assertJsonPath('state', 'whole')
            ->assertJsonPath('events', 5);
        self::assertStringContainsString(
            'asks for a retest of TST-C1: Once more, please',
            (string) $this->as($this->me, 'GET', '/notices')->getContent(),
        );
        self::becomeOwner();
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

    /**
     * Files of a bundle with its seal and signature made to fit, by the key of the installation.
     *
     * @param  array<string, string>  $parts
     */
    private function write(string $dir, array $parts): void
    {
        $sha256 = hash('sha256', $parts['manifest.json']);
        $signer = new RecordSigner();
        [$fingerprint, $signature] = explode(':', $signer->sign(Signed::bundle($sha256)), 2);
        $key = base64_encode((string) $signer->publicKey($fingerprint));
        $parts['seal.txt'] = "{$sha256}\n";
        $parts['signature.txt'] = "fingerprint {$fingerprint}\nkey {$key}\nsignature {$signature}\n";
        foreach ($parts as $name => $text) {
            file_put_contents("{$dir}/{$name}", $text);
        }
    }
}
