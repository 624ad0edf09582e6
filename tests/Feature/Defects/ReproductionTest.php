<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Defects;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;

/**
 * How a developer gets to a fault from what was walked, and where the failing step passed.
 */
final class ReproductionTest extends FeatureTestCase
{
    use Walks;

    private User $tester;

    protected function setUp(): void
    {
        parent::setUp();
        $this->tester = $this->world->person('tess');
    }

    public function test_the_steps_up_to_the_failing_one_are_told_as_they_were_walked(): void
    {
        $entry = $this->world->entry($this->tester, 5);
        $attempt = $this->walked($entry, $this->tester);
        $this->judge($this->tester, $attempt, 1, 1, 'pass');
        $this->judge($this->tester, $attempt, 1, 4, 'fail', ['happened' => 'Nothing came']);
        $this->judge($this->tester, $attempt, 1, 5, 'pass');
        $this->file($attempt, 4);
        $dev = $this->world->person('dev', Role::Developer);
        $found = $this->as($dev, 'GET', '/defects/TST-D1/reproduction')->assertOk();
        $found->assertJsonPath('reproduction.failing', 4)->assertJsonPath('reproduction.of_steps', 5);
        self::assertSame([1, 4], $found->json('reproduction.steps.*.position'), 'what was left out does not renumber');
        self::assertSame(
            ['Do 4', 'fail', 'Nothing came'],
            array_values(array_intersect_key($found->json('reproduction.steps.1'), ['action' => 0, 'verdict' => 0, 'happened' => 0])),
        );
        $found->assertJsonPath('reproduction.build.name', '1.0')->assertJsonPath('reproduction.beside', null);
        // Reported without a walk there is nothing to show.
        $this->as($this->tester, 'POST', '/projects/TST/defects', ['title' => 'Heard of'])->assertCreated();
        $this->as($dev, 'GET', '/defects/TST-D2/reproduction')->assertOk()->assertJsonPath('reproduction', null);
        $this->as($this->world->person('reader', Role::Reader), 'GET', '/defects/TST-D1/reproduction')->assertOk();
    }

    public function test_the_last_pass_before_is_laid_beside_it_with_only_what_is_otherwise(): void
    {
        $entry = $this->world->entry($this->tester);
        $passed = $this->finished($entry, $this->tester);
        $next = $this->build('1.1');
        $this->as($this->world->lead(), 'POST', "/entries/{$entry->id}/retests", ['reason' => 'A new build'])->assertCreated();
        $other = $this->world->person('otto');
        $entry->refresh()->update(['assignee_id' => $other->id]);
        $failed = $this->again($entry, $other, ['build_id' => $next->id]);
        $this->judge($other, $failed, 1, 1, 'pass');
        $this->judge($other, $failed, 1, 2, 'fail', ['happened' => 'It broke']);
        $this->file($failed, 2);
        $beside = $this->as($other, 'GET', '/defects/TST-D1/reproduction')->assertOk()->json('reproduction.beside');
        self::assertSame(
            [$passed, true, true, true],
            [$beside['attempt_id'], $beside['is_before'], $beside['same_configuration'], $beside['same_data']],
        );
        self::assertSame(
            [['what' => 'Build', 'passed' => '1.0', 'failed' => '1.1'], ['what' => 'Tester', 'passed' => 'Tess', 'failed' => 'Otto']],
            $beside['differences'],
        );
    }

    public function test_a_pass_on_another_configuration_is_said_to_be_so_and_one_judged_from_the_list_does_not_count(): void
    {
        $project = $this->world->project->id;
        $make = static fn(string $name, int $at): Configuration => Configuration::query()->create([
            'project_id' => $project,
            'name' => $name,
            'position' => $at,
        ]);
        [$phone, $desk] = [$make('Phone', 1), $make('Desk', 2)];
        $here = $this->world->entry($this->tester, 3, ['configuration_id' => $phone->id]);
        $there = $this->world->entry($this->tester, 3, [
            'configuration_id' => $desk->id,
            'case_id' => $here->case_id,
            'case_version_id' => $here->case_version_id,
        ]);
        $elsewhere = $this->finished($there, $this->tester);
        $failed = $this->walked($here, $this->tester);
        $this->judge($this->tester, $failed, 1, 2, 'fail', ['happened' => 'It broke']);
        $this->file($failed, 2);
        $read = fn(): mixed => $this->as($this->tester, 'GET', '/defects/TST-D1/reproduction')->assertOk()->json('reproduction.beside');
        self::assertSame([$elsewhere, false], [$read()['attempt_id'], $read()['same_configuration']]);
        self::assertSame(['what' => 'Configuration', 'passed' => 'Desk', 'failed' => 'Phone'], $read()['differences'][0]);
        DB::table('attempts')
            ->where('id', $elsewhere)
            ->update(['from_list' => true]);
        self::assertNull($read());
    }

    private function file(string $attempt, int $step): void
    {
        $this->as($this->tester, 'POST', '/projects/TST/defects', [
            'title' => 'It broke',
            'attempt_id' => $attempt,
            'round' => 1,
            'step' => $step,
        ])->assertCreated();
    }

    private function build(string $name): Build
    {
        return Build::query()->create(['project_id' => $this->world->project->id, 'name' => $name, 'position' => 9]);
    }

    /**
     * @param  array<string, mixed>  $on
     */
    private function again(Entry $entry, User $user, array $on): string
    {
        return (string) $this->as($user, 'POST', "/entries/{$entry->id}/attempts", $on)
            ->assertCreated()
            ->json('attempt.id');
    }
}
