<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Api;

use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use Illuminate\Support\Facades\Storage;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Problems\Away;
use LucidStep\App\Support\Problems\ReportDatabaseFault;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * What the application needs is away, or two did the same at once: it says so in a way that a device waits for, and leaves
 * nothing half done.
 */
final class AwayTest extends FeatureTestCase
{
    use Walks;

    public function test_without_its_database_it_says_at_once_to_try_again(): void
    {
        $me = $this->world->person();
        $attempt = $this->walked($this->world->entry($me), $me);
        $tries = [
            ['GET', '/session', []],
            ['GET', '/projects/TST/today', []],
            ['POST', "/attempts/{$attempt}/verdicts", ['round' => 1, 'step' => 1, 'verdict' => 'pass']],
        ];
        foreach ($tries as [$method, $path, $body]) {
            // Another connection, so that the one that the test lives in stays.
            config(['database.connections.away' => ['port' => 1] + config('database.connections.pgsql'), 'database.default' => 'away']);
            $began = microtime(true);
            $answer = $this->as($me, $method, $path, $body);
            self::assertLessThan(4, microtime(true) - $began);
            config(['database.default' => 'pgsql']);
            $answer->assertStatus(503)->assertHeader('Content-Type', 'application/problem+json')->assertHeader('Retry-After', '5');
            self::assertSame('urn:lucid-step:problem:away', $answer->json('type'), "{$method} {$path}");
        }
        $this->judge($me, $attempt, 1, 1, 'pass');
    }

    public function test_whoever_watches_the_node_is_told_that_it_lives_and_whether_it_can_work(): void
    {
        $this->get('/up')->assertOk()->assertSee('up');
        $this->get('/ready')->assertOk()->assertSee('ready');
        config(['database.connections.away' => ['port' => 1] + config('database.connections.pgsql'), 'database.default' => 'away']);
        $this->get('/up')->assertOk();
        $this->get('/ready')->assertStatus(503)->assertSee('away: database')->assertHeader('Retry-After', '5');
        config(['database.default' => 'pgsql']);
    }

    /**
     * @return iterable<string, array{string, ?int}>
     */
    public static function faults(): iterable
    {
        yield 'no connection' => ['SQLSTATE[08006] [7] connection to server failed', 5];
        yield 'shut down' => ['SQLSTATE[57P01]: Admin shutdown: 7 FATAL: terminating connection', 5];
        yield 'starting' => ['SQLSTATE[57P03]: the database system is starting up', 5];
        yield 'disk full' => ['SQLSTATE[53100]: Disk full: could not extend file', 5];
        yield 'too many' => ['SQLSTATE[53300]: sorry, too many clients already', 5];
        yield 'broken off' => ['SQLSTATE[HY000]: General error: 7 server closed the connection unexpectedly', 5];
        yield 'deadlock' => ['SQLSTATE[40P01]: Deadlock detected', 1];
        yield 'a fault of ours' => ['SQLSTATE[42703]: Undefined column', null];
        yield 'a check' => ['SQLSTATE[23514]: Check violation', null];
        yield 'another general one' => ['SQLSTATE[HY000]: General error: 7 cached plan must not change', null];
    }

    #[DataProvider('faults')]
    public function test_what_is_away_is_told_apart_from_what_is_wrong(string $message, ?int $again): void
    {
        self::assertSame($again, Away::of(new \PDOException($message))[1] ?? null);
        self::assertSame($again, Away::of(new QueryException('pgsql', 'select 1', [], new \PDOException($message)))[1] ?? null);
        self::assertNull(Away::of(new \RuntimeException($message)));
    }

    /**
     * A storage that takes nothing, or not all: the same picture again finds nothing that looks like it.
     */
    public function test_an_upload_that_is_not_written_whole_leaves_nothing(): void
    {
        $me = $this->world->person();
        $attempt = $this->walked($this->world->entry($me), $me);
        $disk = Storage::disk('local');
        $disk->put('evidence', 'a file where the folder would be');
        $png = self::png(40, 30);
        $hash = hash('sha256', $png);
        $this->upload($me, $attempt, $png, ['round' => 1, 'step' => 1])
            ->assertStatus(503)
            ->assertJsonPath('type', 'urn:lucid-step:problem:away')
            ->assertHeader('Retry-After', '15');
        self::assertSame(0, DB::table('evidence')->count());
        $disk->delete('evidence');
        $path = (new StoredFile(['sha256' => $hash]))->path();
        $disk->put($path, substr($png, 0, 60));
        $this->upload($me, $attempt, $png, ['round' => 1, 'step' => 1])->assertCreated();
        self::assertSame($png, $disk->get($path));
        // Cut afterwards, as a full disk or a bad copy leaves it: the next who brings the same mends it.
        $disk->put($path, substr($png, 0, 60) . str_repeat("\0", \strlen($png) - 60));
        $this->upload($me, $attempt, $png, ['round' => 1, 'step' => 2])->assertCreated();
        self::assertSame($hash, hash('sha256', (string) $disk->get($path)));
        self::assertSame([$path], $disk->allFiles('evidence'));
    }

    public function test_a_key_that_came_with_one_file_does_not_answer_for_another(): void
    {
        $me = $this->world->person();
        $attempt = $this->walked($this->world->entry($me), $me);
        $key = ['Idempotency-Key' => '0199d2f0-0000-7000-8000-00000000000a'];
        $id = '0199d2f0-0000-7000-8000-00000000000b';
        $one = self::png(10, 10);
        $send = fn(string $file) => $this->withHeaders($key)->upload($me, $attempt, $file, ['round' => 1, 'step' => 1, 'id' => $id]);
        $first = $send($one)->assertCreated()->json();
        $send($one)->assertCreated()->assertHeader('Idempotent-Replay', 'true')->assertExactJson($first);
        $send(self::png(11, 10))->assertConflict()->assertJsonPath('type', 'urn:lucid-step:problem:key-used-otherwise');
        self::assertSame(1, DB::table('evidence')->count());
    }

    /**
     * Somebody else makes the same between the look and the write.
     */
    public function test_two_who_make_the_same_at_once_are_answered_and_nothing_fails(): void
    {
        $lead = $this->world->lead();
        $makes = [
            ['/projects/TST/releases', ['name' => 'Autumn'], 'releases'],
            ['/projects/TST/routines', ['name' => 'Sign in', 'steps' => [['action' => 'a', 'data' => '', 'expected' => 'b']]], 'routines'],
            ['/projects/TST/data-tables', ['name' => 'Berths', 'columns' => [['name' => 'who']], 'rows' => []], 'data_tables'],
        ];
        foreach ($makes as [$path, $body, $table]) {
            $this->as($lead, 'POST', $path, $body)->assertSuccessful();
            $row = (array) DB::table($table)->orderByDesc('id')->first();
            DB::table($table)
                ->where('id', $row['id'])
                ->update(['name' => 'Elsewhere']);
            $raced = false;
            DB::beforeExecuting(static function (string $sql) use ($table, $row, &$raced): void {
                if (!$raced && str_starts_with($sql, "insert into \"{$table}\"")) {
                    $raced = true;
                    DB::table($table)
                        ->where('id', $row['id'])
                        ->update(['name' => $row['name']]);
                }
            });
            $answer = $this->as($lead, 'POST', $path, $body);
            self::assertTrue($raced, $path);
            self::assertContains($answer->getStatusCode(), [409, 422], $path . $answer->getContent());
        }
    }

    public function test_a_log_never_holds_what_people_typed(): void
    {
        Log::shouldReceive('error')
            ->once()
            ->withArgs(static function (string $message, array $context): bool {
                $all = $message . json_encode($context, \JSON_THROW_ON_ERROR);
                self::assertStringNotContainsString('GEHEIM', $all);
                self::assertStringNotContainsString('4711', $all);
                self::assertStringContainsString('insert into labels', $all);
                self::assertSame('23514', $context['sqlstate']);
                self::assertSame('labels_name_check', $context['constraint']);
                self::assertStringContainsString('tests/Feature/Api/AwayTest.php', $context['at'][0]);

                return true;
            });
        $detail = 'new row for relation "labels" violates check constraint "labels_name_check" DETAIL: (GEHEIM-4711)';
        $before = new \PDOException("SQLSTATE[23514]: Check violation: 7 ERROR: {$detail}");
        $before->errorInfo = ['23514', 7, $detail];
        $e = new QueryException('pgsql', "insert into labels (name, of) values (?, 'GEHEIM') returning 4711", ['GEHEIM-4711'], $before);
        ReportDatabaseFault::report($e);
    }
}
