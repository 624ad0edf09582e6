<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use Illuminate\Queue\Events\Looping;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Support\Background\BackgroundWork;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Nothing works in the background: whoever waits is told, and the admins are, once.
 */
final class StandstillTest extends FeatureTestCase
{
    public function test_whoever_waits_for_a_job_that_nobody_works_on_is_told_so_and_the_admins_are(): void
    {
        $me = $this->world->person();
        $admin = $this->world->person('admin', Role::Admin);
        $this->world->case(0);
        $export = $this->as($me, 'POST', '/projects/TST/case-exports', ['format' => 'csv'])->assertCreated();
        // As it is while it waits for the worker.
        config(['queue.default' => 'database']);
        DB::table('case_exports')->update(['state' => 'running']);
        event(new Looping('database', 'default'));
        BackgroundWork::alive(BackgroundWork::WORKER, 1);
        $look = fn() => $this->as($me, 'GET', '/case-exports/' . $export->json('id'))->assertOk();
        $this->travel(50)->seconds();
        $look()->assertJsonPath('standstill', '');
        $this->travel(20)->seconds();
        foreach ([1, 2] as $once) {
            self::assertStringContainsString('the background worker does not run', (string) $look()->json('standstill'));
            self::assertSame(
                [[$admin->id, '/TST']],
                DB::table('notices')->get()->map(static fn(object $n): array => [$n->user_id, $n->link])->all(),
                'told once',
            );
        }
        // While it works on something long it gives no sign, and is not dead.
        BackgroundWork::alive(BackgroundWork::WORKER, 900);
        $this->travel(800)->seconds();
        $look()->assertJsonPath('standstill', '');
        $this->travel(7)->hours();
        self::assertNotSame('', $look()->json('standstill'));
        self::assertSame(2, DB::table('notices')->count(), 'and again after six hours');
        DB::table('case_exports')->update(['state' => 'done']);
        $look()->assertJsonPath('standstill', '');
    }

    public function test_worker_and_scheduler_look_after_each_other(): void
    {
        $admin = $this->world->person('admin', Role::Admin);
        $told = fn(): array => DB::table('notices')->orderBy('created_at')->pluck('text', 'user_id')->all();
        // A worker that began a moment ago gives the scheduler time; then the admins are told, once in six hours.
        BackgroundWork::isSettled();
        event(new Looping('database', 'default'));
        self::assertSame(0, DB::table('notices')->count());
        $this->travel(6)->minutes();
        event(new Looping('database', 'default'));
        $this->travel(1)->hours();
        event(new Looping('database', 'default'));
        self::assertSame([$admin->id], array_keys($told()));
        self::assertStringContainsString('The scheduler does not run', $told()[$admin->id]);
        self::assertSame(1, DB::table('notices')->count());
        Artisan::call('schedule:run');
        $this->travel(7)->hours();
        Artisan::call('schedule:run');
        event(new Looping('database', 'default'));
        self::assertSame(1, DB::table('notices')->count(), 'a scheduler that runs is not told of');
        // A worker that is away is told of where there is work, and only there.
        config(['queue.default' => 'database']);
        $this->travel(1)->hours();
        Artisan::call('schedule:run');
        self::assertSame(1, DB::table('notices')->count());
        DB::table('jobs')->insert(['queue' => 'default', 'payload' => '{}', 'attempts' => 0, 'available_at' => 0, 'created_at' => 0]);
        Artisan::call('schedule:run');
        Artisan::call('schedule:run');
        self::assertSame(2, DB::table('notices')->count());
        self::assertStringContainsString(
            'The background worker does not run',
            (string) DB::table('notices')->orderByDesc('created_at')->value('text'),
        );
    }

    public function test_the_scheduler_gives_a_sign_too(): void
    {
        self::assertTrue(BackgroundWork::isDead(BackgroundWork::SCHEDULER));
        Artisan::call('schedule:run');
        self::assertFalse(BackgroundWork::isDead(BackgroundWork::SCHEDULER));
        $this->travel(6)->minutes();
        self::assertTrue(BackgroundWork::isDead(BackgroundWork::SCHEDULER));
    }
}
