<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Record\RecordSigner;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\Signed;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\RecordedAttempts;
use LucidStep\Tests\Support\Tampering;
use LucidStep\Tests\Support\Walks;

/**
 * Every way in which a record was tried to be changed behind the application's back, and what names it. The list in
 * docs/record.md is this one.
 */
final class TamperTest extends FeatureTestCase
{
    use RecordedAttempts;
    use Walks;

    public function test_what_was_recorded_by_the_rules_is_whole(): void
    {
        self::assertSame('whole', $this->verified($this->attempt)['state'], (string) $this->verified($this->attempt)['why']);
        self::assertSame('open', $this->verified($this->open)['state']);
        self::assertSame('whole', $this->verifiedCycle()['state'], (string) $this->verifiedCycle()['why']);
    }

    public function test_every_change_behind_the_application_is_named(): void
    {
        self::assertGreaterThan(60, \count(Tampering::ways()));
        foreach (Tampering::ways() as [$what, $sql, $why]) {
            DB::beginTransaction();
            self::assertGreaterThan(0, $this->tamper($sql), "{$what}: nothing was changed");
            $found = $this->verified($this->attempt);
            self::assertSame('broken', $found['state'], $what);
            self::assertStringContainsString($why, (string) $found['why'], $what);
            DB::rollBack();
        }
        self::assertSame('whole', $this->verified($this->attempt)['state']);
    }

    public function test_every_way_that_was_tried_stands_in_the_documentation(): void
    {
        $told = (string) file_get_contents(__DIR__ . '/../../../docs/record.md');
        foreach (Tampering::ways() as [$what, , $why]) {
            self::assertStringContainsString("| {$what} | {$why} |", $told);
        }
    }

    public function test_a_file_that_is_replaced_cut_or_gone_is_named(): void
    {
        $path = (new StoredFile(['sha256' => $this->sha256]))->path();
        $disk = Storage::disk('local');
        $whole = (string) $disk->get($path);
        foreach (
            ['other content' => self::png(30, 20, 0xff0000), 'has other' => substr($whole, 0, -1), 'is not there' => null]
            as $why => $now
        ) {
            null === $now ? $disk->delete($path) : $disk->put($path, $now);
            self::assertStringContainsString($why, (string) $this->verified($this->attempt)['why']);
        }
        $disk->put($path, $whole);
        self::assertSame('whole', $this->verified($this->attempt)['state']);
    }

    /**
     * Whoever holds the database and knows the rules can make all hashes of an attempt anew. The chain of the cycle tells.
     */
    public function test_an_attempt_made_anew_with_right_hashes_does_not_fit_the_chain_of_its_cycle(): void
    {
        $forge = function (string $attempt, int $until, ?string $verdict): void {
            $hash = Chain::start($attempt);
            foreach (DB::table('events')->where('attempt_id', $attempt)->orderBy('sequence')->get() as $e) {
                if ($e->sequence > $until) {
                    DB::table('events')->where('attempt_id', $attempt)->where('sequence', $e->sequence)->delete();

                    continue;
                }
                $swap = static fn(string $text): string => null === $verdict ? $text : str_replace('"fail"', "\"{$verdict}\"", $text);
                $bytes = $swap($e->bytes);
                $hash = Chain::next($hash, $bytes);
                DB::table('events')
                    ->where('attempt_id', $attempt)
                    ->where('sequence', $e->sequence)
                    ->update(['bytes' => $bytes, 'hash' => $hash, 'payload' => $swap($e->payload)]);
            }
            $end = DB::table('events')->where('attempt_id', $attempt)->where('kind', 'finished')->first();
            DB::table('attempts')
                ->where('id', $attempt)
                ->update([
                    'sequence' => min($until, (int) DB::table('attempts')->where('id', $attempt)->value('sequence')),
                    'head' => $hash,
                    'sealed_sequence' => $end?->sequence,
                    'sealed_head' => $end?->hash,
                ]);
        };
        DB::beginTransaction();
        $forge($this->attempt, 99, 'pass');
        DB::update("update step_results set verdict = 'pass' where verdict = 'fail'");
        DB::update("update rounds set roll_up = 'blocked' where attempt_id = ?", [$this->attempt]);
        $found = $this->verified($this->attempt);
        self::assertSame('broken', $found['state'], 'every fail turned into a pass');
        self::assertSame('broken', $this->verifiedCycle()['state']);
        DB::rollBack();

        DB::beginTransaction();
        $forge($this->open, 1, null);
        DB::update(
            "update step_results set verdict = 'not_run', happened = '', judged_at = null where verdict = 'fail' and round_id in " .
                '(select id from rounds where attempt_id = ?)',
            [$this->open],
        );
        DB::update("update rounds set roll_up = 'not_run' where attempt_id = ?", [$this->open]);
        DB::update("update attempts set roll_up = 'not_run', has_verdict = false, active_ms = 0 where id = ?", [$this->open]);
        self::assertSame('whole', $this->verifiedCycle()['state'], 'the tail of what is still open is told by nobody yet');
        DB::rollBack();
    }

    public function test_an_unfinished_attempt_cannot_be_made_to_vanish(): void
    {
        DB::statement('set session_replication_role = replica');
        foreach (
            ['events' => 'attempt_id', 'evidence' => 'attempt_id', 'rounds' => 'attempt_id', 'attempts' => 'id']
            as $table => $column
        ) {
            DB::table($table)->where($column, $this->open)->delete();
        }
        DB::statement('set session_replication_role = default');
        $found = $this->verifiedCycle();
        self::assertSame('broken', $found['state']);
        self::assertStringContainsString("attempt {$this->open} is not there any more", (string) $found['why']);
    }

    public function test_an_attempt_put_in_beside_the_application_is_not_in_the_chain_of_its_cycle(): void
    {
        DB::table('cycle_events')->where('payload->attempt', $this->open)->delete();
        $last = DB::table('cycle_events')->orderByDesc('sequence')->first();
        self::assertNotNull($last);
        $id = $this->world->cycle->id;
        // By somebody who holds the key as well.
        $signed = (new RecordSigner())->sign(Signed::head($id, $last->sequence, $last->hash));
        DB::table('cycles')
            ->where('id', $id)
            ->update(['log_sequence' => $last->sequence, 'log_head' => $last->hash, 'log_signature' => $signed]);
        $found = $this->verifiedCycle();
        self::assertSame('broken', $found['state']);
        self::assertStringContainsString("event 1 of attempt {$this->open}", (string) $found['why']);
    }

    public function test_an_act_that_came_late_is_told_before_anybody_decides_and_so_is_what_was_decided(): void
    {
        $me = $this->world->person('other');
        $this->as($me, 'POST', "/attempts/{$this->open}/take-over", [])->assertSuccessful();
        $this->send($this->me, $this->open, 1, 2, 'fail', ['happened' => 'It sank too'])->assertStatus(202);
        $this->send($this->me, $this->open, 1, 3, 'pass')->assertStatus(202);
        foreach (DB::table('late_commands')->orderBy('received_at')->pluck('id') as $i => $late) {
            $this->as($this->lead, 'POST', "/late-commands/{$late}/judgements", ['accept' => 0 === $i])->assertOk();
        }
        $kinds = DB::table('cycle_events')->orderByDesc('sequence')->limit(5)->pluck('kind')->reverse()->values()->all();
        self::assertSame(['attempt_taken_over', 'late_act_arrived', 'late_act_arrived', 'late_act_accepted', 'late_act_set_aside'], $kinds);
        self::assertSame('whole', $this->verifiedCycle()['state'], (string) $this->verifiedCycle()['why']);
        self::assertStringNotContainsString('It sank too', (string) json_encode(DB::table('cycle_events')->get()));
    }

    public function test_a_new_key_leaves_what_the_old_one_signed_and_another_installation_s_is_named(): void
    {
        $before = (new RecordSigner())->fingerprint();
        self::assertSame(0, Artisan::call('lucid:rotate-key'));
        self::assertStringContainsString("Until now: {$before}", Artisan::output());
        self::assertNotSame($before, (new RecordSigner())->fingerprint());
        self::assertSame('whole', $this->verified($this->attempt)['state']);
        $this->as($this->world->person('other'), 'POST', "/attempts/{$this->attempt}/time", ['time' => '9m'])->assertOk();
        self::assertSame('whole', $this->verified($this->attempt)['state'], 'the head of the cycle is signed with the new one');
        config(['lucid.keys' => storage_path('framework/testing/keys-of-others')]);
        $found = $this->verified($this->attempt);
        self::assertSame('broken', $found['state']);
        self::assertStringContainsString("a key that is not this installation's ({$before})", (string) $found['why']);
    }

    public function test_names_may_change_and_leave_every_record_whole(): void
    {
        $this->me->update(['name' => 'Isla Fenn-Holm']);
        $this->world->build->update(['name' => '1.0, called back']);
        foreach ([$this->attempt => 'whole', $this->open => 'open'] as $attempt => $state) {
            self::assertSame($state, $this->verified($attempt)['state']);
        }
    }

    private function tamper(string $sql): int
    {
        $values = [
            'a' => $this->attempt,
            'o' => $this->open,
            'e' => $this->picture,
            's' => $this->sha256,
            'p' => $this->lead->id,
            'c' => $this->configuration(),
            'n' => $this->environment(),
        ];
        $sql = (string) preg_replace_callback(
            '/:([aoespcn])\b/',
            static fn(array $m): string => (string) DB::getPdo()->quote($values[$m[1]]),
            $sql,
        );

        return DB::affectingStatement($sql);
    }

    private function environment(): string
    {
        $there = DB::table('environments')
            ->where('project_id', $this->world->project->id)
            ->value('id');
        if (null === $there) {
            $there = (string) Str::uuid7();
            DB::table('environments')->insert([
                'id' => $there,
                'project_id' => $this->world->project->id,
                'name' => 'Staging',
                'position' => 1,
            ]);
        }

        return (string) $there;
    }

    private function configuration(): string
    {
        $there = DB::table('configurations')
            ->where('project_id', $this->world->project->id)
            ->value('id');
        if (null === $there) {
            $there = (string) Str::uuid7();
            DB::table('configurations')->insert([
                'id' => $there,
                'project_id' => $this->world->project->id,
                'name' => 'A phone',
                'position' => 1,
            ]);
        }

        return (string) $there;
    }
}
