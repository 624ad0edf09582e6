<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Sessions;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\Bundles;
use LucidStep\Tests\Support\FeatureTestCase;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/**
 * The record of a session is checked here and outside, by the checker of all records; it is found by words, and handed on with its charter.
 */
final class RecordTest extends FeatureTestCase
{
    use Bundles;

    private User $me;

    private string $session;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person('tess');
        Carbon::setTestNow('2026-11-30 10:00:00');
        $this->as($this->me, 'POST', '/projects/TST/charters', ['title' => 'Refunds near 48 hours'])->assertCreated();
        $this->session = (string) Str::uuid7();
        $this->as($this->me, 'POST', '/charters/TST-S1/sessions', ['id' => $this->session])->assertCreated();
    }

    public function test_its_bundle_is_checked_outside_and_what_was_taken_out_leaves_it_whole(): void
    {
        $note = $this->line('A name that must not be here');
        $capture = (string) Str::uuid7();
        foreach ([$capture, (string) Str::uuid7()] as $i => $id) {
            $this->as($this->me, 'POST', "/test-sessions/{$this->session}/captures", [
                'id' => $id,
                'name' => "seen{$i}.png",
                'file' => UploadedFile::fake()->image("seen{$i}.png", 10 + $i, 10),
            ])->assertCreated();
        }
        [$code, $said] = $this->check($this->bundle());
        self::assertSame(0, $code, $said);
        self::assertStringContainsString('not signed off', $said);
        self::assertStringContainsString('2 files of evidence', $said);

        $this->as($this->me, 'POST', "/test-sessions/{$this->session}/moves", ['to' => 'stopped'])->assertOk();
        $this->as($this->world->lead(), 'POST', "/test-sessions/{$this->session}/sign-offs", ['note' => 'Read'])->assertOk();
        $admin = $this->world->person('admin', Role::Admin);
        foreach ([$note, $capture] as $line) {
            $this->as($admin, 'POST', "/session-lines/{$line}/removals", ['reason' => 'Private'])->assertOk();
        }
        $this->as($this->me, 'GET', "/test-sessions/{$this->session}/verification")
            ->assertOk()
            ->assertJson(['state' => 'whole']);
        $dir = $this->bundle();
        [$code, $said] = $this->check($dir);
        self::assertSame(0, $code, $said);
        self::assertStringContainsString('was taken out (Private)', $said);
        self::assertStringNotContainsString('must not be here', (string) file_get_contents("{$dir}/events.jsonl"));

        // A word changed, a file changed, an event taken away: each is found and named.
        foreach (
            [
                'events.jsonl was changed' => static fn() => file_put_contents(
                    "{$dir}/events.jsonl",
                    str_replace('Read', 'Seen', (string) file_get_contents("{$dir}/events.jsonl")),
                ),
                'sheet.md was changed' => static fn() => file_put_contents("{$dir}/sheet.md", 'All is well.'),
            ]
            as $fault => $tamper
        ) {
            $tamper();
            [$code, $said] = $this->check($dir, $this->checker());
            self::assertSame(1, $code);
            self::assertStringContainsString($fault, $said);
        }
    }

    public function test_a_charter_is_found_by_its_words_and_goes_on_when_somebody_leaves(): void
    {
        $links = fn(string $q): array => array_column(
            (array) $this->as($this->me, 'GET', '/projects/TST/go-to?q=' . urlencode($q))
                ->assertOk()
                ->json('items'),
            'link',
        );
        self::assertContains('sessions/TST-S1', $links('near 48'));
        self::assertSame('sessions/TST-S1', $links('tst-s1')[0]);

        // What waits for them goes on; what they began stays theirs.
        $other = $this->world->person('otto');
        $body = ['title' => 'Waiting', 'assignee_id' => $this->me->id];
        $this->as($this->world->lead(), 'POST', '/projects/TST/charters', $body)->assertCreated();
        $admin = $this->world->person('admin', Role::Admin);
        $this->as($admin, 'POST', "/projects/TST/people/{$this->me->id}/departures", ['to' => $other->id])->assertSuccessful();
        $this->as($other, 'GET', '/charters/TST-S2')->assertJsonPath('charter.assignee.name', $other->name);
        $this->as($other, 'GET', '/charters/TST-S1')->assertJsonPath('sessions.0.tester.id', $this->me->id);
    }

    private function line(string $words): string
    {
        $id = (string) Str::uuid7();
        $this->as($this->me, 'POST', "/test-sessions/{$this->session}/lines", [
            'id' => $id,
            'kind' => 'note',
            'words' => $words,
        ])->assertCreated();

        return $id;
    }

    /**
     * @return string the folder into which it was unpacked
     */
    private function bundle(): string
    {
        $answer = $this->as($this->me, 'GET', "/test-sessions/{$this->session}/bundle")->assertOk()->baseResponse;
        self::assertInstanceOf(BinaryFileResponse::class, $answer);

        return $this->unpack($answer->getFile()->getContent());
    }
}
