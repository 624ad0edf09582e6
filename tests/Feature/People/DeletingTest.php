<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use Illuminate\Support\Facades\Storage;
use League\Flysystem\UnableToWriteFile;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\Everything;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;
use LucidStep\Tests\Support\World;

/**
 * A project that is deleted is gone with everything in it, and nothing else is; and what the installation depends on is tried.
 */
final class DeletingTest extends FeatureTestCase
{
    use Everything;
    use Walks;

    private User $owner;

    protected function setUp(): void
    {
        parent::setUp();
        $this->owner = $this->world->person('owns', Role::Reader);
        $this->owner->forceFill(['is_owner' => true])->save();
    }

    public function test_nothing_of_a_deleted_project_is_left_and_all_of_another_is(): void
    {
        $this->full($this->world);
        $other = new World('OTH');
        $this->full($other);
        $shared = $this->png(11, 11);
        foreach ([$this->world, $other] as $world) {
            $me = $world->person();
            $this->upload($me, $this->walked($world->entry($me), $me), $shared, ['round' => 1, 'step' => 1])->assertCreated();
        }
        $kept = $this->counts($this->world->project->id);
        $of = $this->counts($other->project->id);
        self::assertGreaterThan(25, count(array_filter($of)), 'tables with something of the project');
        $alone = (string) DB::table('evidence')->where('project_id', $other->project->id)->whereNotNull('sha256')->value('sha256');
        $path = "/installation/projects/{$other->project->id}";

        $this->as($this->owner, 'POST', "{$path}/deletions", ['name' => $other->project->name])
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:not-archived');
        $this->as($this->owner, 'POST', "{$path}/archivings")->assertOk();
        $this->as($this->owner, 'POST', "{$path}/deletions", ['name' => 'Something else'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['name']]);
        $this->as($other->lead(), 'POST', "{$path}/deletions", ['name' => $other->project->name])->assertForbidden();
        $page = $this->as($this->owner, 'POST', "{$path}/deletions", ['name' => $other->project->name])->assertOk();
        self::assertSame(['OTH', 'owns'], [$page->json('deleted.0.code'), strtolower((string) $page->json('deleted.0.by.name'))]);
        self::assertNotContains('OTH', array_column((array) $page->json('projects'), 'code'));

        self::assertSame([], array_filter($this->counts($other->project->id)));
        self::assertSame($kept, $this->counts($this->world->project->id));
        self::assertNotNull(DB::table('project_deletions')->value('done_at'));
        $lost = fn(string $sha256): bool => !Storage::disk()->exists((new StoredFile(['sha256' => $sha256]))->path());
        self::assertTrue($lost($alone), 'a picture that it alone showed');
        foreach (DB::table('evidence')->whereNotNull('sha256')->pluck('sha256') as $sha256) {
            self::assertFalse($lost((string) $sha256), 'a picture that is shown');
        }
        $this->as($this->owner, 'POST', "{$path}/restorations")->assertNotFound();
        $this->as($other->lead(), 'GET', '/projects/OTH/casebook')->assertNotFound();
        // Its code is free again, and the record of the other stays proven.
        $this->as($this->owner, 'POST', '/projects', ['code' => 'OTH', 'name' => 'Anew', 'time_zone' => 'UTC'])->assertCreated();
        $this->as($this->world->lead(), 'GET', '/cycles/TST-R1/verification')->assertJsonPath('state', 'whole');
    }

    public function test_the_application_can_delete_nothing_of_a_record_by_itself(): void
    {
        $this->full($this->world);
        foreach (["select lucid_delete_project('{$this->world->project->id}')", 'delete from events', 'delete from cycle_events'] as $way) {
            try {
                DB::transaction(static function () use ($way): void {
                    DB::statement("set local lucid.deleting = 'yes'");
                    DB::statement($way);
                });
                self::fail("{$way} went through");
            } catch (QueryException $e) {
                self::assertMatchesRegularExpression('/permission denied|only an archived project/', $e->getMessage());
            }
        }
    }

    public function test_mail_and_storage_are_tried_and_say_what_is_wrong(): void
    {
        Mail::fake();
        $services = $this->as($this->owner, 'GET', '/installation')->assertOk()->json('services');
        self::assertSame(config('filesystems.default'), $services['storage']);
        self::assertStringNotContainsString('password', (string) json_encode($services));
        $this->as($this->owner, 'POST', '/installation/mail-tests')->assertOk()->assertJsonPath('works', true);
        $this->as($this->owner, 'POST', '/installation/storage-tests')->assertOk()->assertJsonPath('works', true);
        self::assertSame([], Storage::disk()->allFiles('tests'));
        $away = $this->mock(Filesystem::class);
        $away->shouldReceive('put')->andThrow(UnableToWriteFile::atLocation('tests/x', 'the disk is full'));
        $away->shouldReceive('delete')->andReturn(true);
        $broken = $this->as($this->owner, 'POST', '/installation/storage-tests')->assertOk();
        self::assertFalse($broken->json('works'));
        self::assertStringContainsString('the disk is full', (string) $broken->json('words'));
    }

    public function test_a_mail_server_that_is_not_there_is_named(): void
    {
        config([
            'mail.default' => 'smtp',
            'mail.mailers.smtp' => ['transport' => 'smtp', 'host' => '127.0.0.1', 'port' => 1, 'timeout' => 2],
        ]);
        $answer = $this->as($this->owner, 'POST', '/installation/mail-tests')->assertOk();
        self::assertFalse($answer->json('works'));
        self::assertStringContainsString('127.0.0.1:1', (string) $answer->json('words'));
    }

    /**
     * Something of everything, with an attempt that is finished and a cycle that is signed off.
     */
    private function full(World $world): void
    {
        $this->everything($world);
        $me = $world->person();
        $attempt = $this->walked($world->entry($me), $me);
        $this->upload($me, $attempt, $this->png(7 + \strlen($world->project->code), ord($world->project->code[0])), [
            'round' => 1,
            'step' => 1,
        ])->assertCreated();
        foreach ([1, 2, 3] as $step) {
            $this->judge($me, $attempt, 1, $step, 'pass');
        }
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", [])->assertOk();
        $code = $world->project->code;
        $this->as($world->lead(), 'POST', "/cycles/{$code}-R1/sign-offs", ['note' => 'As agreed, all of it'])->assertSuccessful();
    }

    /**
     * @return array<string, int> by table how many rows are of a project
     */
    private function counts(string $project): array
    {
        $counts = [];
        $tables = DB::select("select table_name as name from information_schema.columns where column_name = 'project_id' order by 1");
        foreach (array_column($tables, 'name') as $table) {
            $counts[$table] = DB::table($table)->where('project_id', $project)->count();
        }
        $of = [
            'events' => 'attempt_id in (select id from attempts where project_id = ?)',
            'cycle_events' => 'cycle_id in (select id from cycles where project_id = ?)',
            'case_log' => 'case_id in (select id from cases where project_id = ?)',
            'projects' => 'id = ?',
        ];
        foreach ($of as $table => $where) {
            $counts[$table] = DB::table($table)
                ->whereRaw($where, [$project])
                ->count();
        }

        return $counts;
    }
}
