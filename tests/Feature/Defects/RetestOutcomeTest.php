<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Defects;

use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;

/**
 * What walking again with a fix does to a defect by itself.
 */
final class RetestOutcomeTest extends FeatureTestCase
{
    use Walks;

    private User $tester;

    private User $lead;

    /** @var list<Build> the one that is tested, and two later ones */
    private array $builds;

    protected function setUp(): void
    {
        parent::setUp();
        [$this->tester, $this->lead] = [$this->world->person('tess'), $this->world->lead()];
        foreach (['1.1', '1.2'] as $at => $name) {
            $this->builds[] = Build::query()->create(['project_id' => $this->world->project->id, 'name' => $name, 'position' => 8 + $at]);
        }
    }

    public function test_it_is_verified_once_every_retest_asked_for_has_passed_its_step_whatever_others_did(): void
    {
        [$one, $two] = [$this->failed(1), $this->failed(null, 'TST-D1')];
        $this->fix('TST-D1', $this->builds[0]);
        $this->ask([$one, $two]);
        self::assertSame(['fixed', 0, 2], $this->state());
        // Its step passes; another one fails, which is another matter.
        $this->walk($one, ['pass', 'fail', 'pass']);
        self::assertSame(['fixed', 1, 2], $this->state());
        $this->walk($two, ['pass', 'pass', 'pass']);
        self::assertSame(['verified', 2, 2], $this->state());
        $history = $this->last();
        self::assertSame('Passed on 2 of 2: attempt 2 on 1.1.', $history['note']);
        self::assertSame([$two->id, $two->refresh()->last_attempt_id], [$history['entry_id'], $history['attempt_id']]);
    }

    public function test_a_failing_step_that_names_it_opens_it_again_once_an_attempt_and_the_count_starts_anew(): void
    {
        $entry = $this->failed(1);
        $this->fix('TST-D1', $this->builds[0]);
        $this->ask([$entry]);
        $attempt = $this->walk($entry, ['fail', 'pass', 'pass'], finish: false);
        $this->link($attempt, 1);
        self::assertSame('reopened', $this->state()[0], 'as soon as it is named');
        self::assertSame('Failed again: attempt 2 on 1.1.', $this->last()['note']);
        $this->fix('TST-D1', $this->builds[1]);
        $this->as($this->tester, 'POST', "/attempts/{$attempt}/finish", [])->assertOk();
        self::assertSame(['fixed', 0, 0], $this->state(), 'finishing says nothing new, and it was on an earlier build');
        $this->world->cycle->update(['build_id' => $this->builds[1]->id]);
        $this->ask([$entry]);
        self::assertSame(['fixed', 0, 1], $this->state());
        $this->walk($entry, ['pass', 'pass', 'pass']);
        self::assertSame(['verified', 1, 1], $this->state());
        // Verified and closed ones too.
        $this->as($this->lead, 'POST', '/defects/TST-D1/moves', ['state' => 'closed'])->assertOk();
        $attempt = $this->walk($entry, ['fail', 'pass', 'pass']);
        $this->link($attempt, 1);
        self::assertSame('reopened', $this->state()[0]);
    }

    public function test_another_build_a_block_and_another_fault_say_nothing(): void
    {
        $entry = $this->failed(1);
        $this->fix('TST-D1', $this->builds[1]);
        $this->world->cycle->update(['build_id' => $this->builds[0]->id]);
        $attempt = $this->walk($entry, ['fail', 'pass', 'pass']);
        $this->link($attempt, 1);
        self::assertSame('fixed', $this->state()[0], 'the build before has it still');
        $this->world->cycle->update(['build_id' => $this->builds[1]->id]);
        $this->walk($entry, ['blocked', 'pass', 'pass']);
        self::assertSame('fixed', $this->state()[0]);
        $this->walk($entry, ['fail', 'pass', 'pass']);
        self::assertSame('fixed', $this->state()[0], 'nobody says that it is this one');
        $this->walk($entry, ['not_applicable', 'pass', 'pass']);
        self::assertSame('fixed', $this->state()[0]);
        $progress = $this->progress();
        self::assertSame(
            [0, 1, false, true, 'unproven'],
            [$progress['passed'], $progress['of'], $progress['proven'], $progress['proposed'], $progress['entries'][0]['result']],
        );
    }

    public function test_what_was_met_in_a_duplicate_counts_and_a_project_may_want_somebody_to_verify(): void
    {
        $this->failed(1);
        $entry = $this->failed(1);
        $this->as($this->lead, 'POST', '/defects/TST-D2/moves', ['state' => 'duplicate', 'duplicate_of' => 'TST-D1'])->assertOk();
        $this->as($this->lead, 'PUT', '/projects/TST/policies', ['retests_verify' => false])->assertOk();
        $this->fix('TST-D1', $this->builds[0]);
        $this->world->cycle->update(['build_id' => $this->builds[0]->id]);
        $this->walk($entry, ['pass', 'pass', 'pass']);
        self::assertSame(['fixed', 1, 1], $this->state());
        self::assertTrue($this->progress()['proven']);
        $attempt = $this->walk($entry, ['fail', 'pass', 'pass']);
        $this->link($attempt, 1, 'TST-D2');
        self::assertSame('reopened', $this->state()[0], 'naming the duplicate names it');
    }

    public function test_judged_from_the_list_it_is_only_proposed(): void
    {
        $entry = $this->failed(1);
        $this->fix('TST-D1', $this->builds[0]);
        $this->ask([$entry]);
        $this->as($this->tester, 'POST', "/cycles/{$this->world->cycle->key}/list-verdicts", [
            'ids' => [$entry->id],
            'verdict' => 'pass',
            'note' => 'Seen at the quay',
        ])->assertOk();
        self::assertSame(['fixed', 0, 1], $this->state());
        self::assertTrue($this->progress()['proposed']);
    }

    private function failed(?int $step, ?string $known = null): Entry
    {
        $entry = $this->world->entry($this->tester);
        $attempt = $this->finished($entry, $this->tester, 'fail');
        if (null !== $known) {
            $this->link($attempt, $step, $known);
        } else {
            $body = ['title' => 'It broke', 'attempt_id' => $attempt, 'round' => 1, 'step' => $step];
            $this->as($this->tester, 'POST', '/projects/TST/defects', $body)->assertCreated();
        }

        return $entry->refresh();
    }

    private function link(string $attempt, ?int $step, string $key = 'TST-D1'): void
    {
        $at = null === $step ? [] : ['round' => 1, 'step' => $step];
        $this->as($this->tester, 'POST', "/defects/{$key}/links", ['attempt_id' => $attempt, ...$at])->assertCreated();
    }

    private function fix(string $key, Build $build): void
    {
        $this->as($this->lead, 'POST', "/defects/{$key}/moves", ['state' => 'fixed', 'build_id' => $build->id])->assertOk();
    }

    /**
     * @param  list<Entry>  $entries
     */
    private function ask(array $entries): void
    {
        if ('1.2' !== $this->world->cycle->refresh()->build?->name) {
            $this->world->cycle->update(['build_id' => $this->builds[0]->id]);
        }
        foreach ($entries as $entry) {
            $this->as($this->lead, 'POST', "/entries/{$entry->id}/retests", ['reason' => 'Fixed'])->assertCreated();
        }
    }

    /**
     * @param  list<string>  $verdicts of its three steps
     */
    private function walk(Entry $entry, array $verdicts, bool $finish = true): string
    {
        $attempt = $this->walked($entry, $this->tester);
        foreach ($verdicts as $at => $verdict) {
            $more = match ($verdict) {
                'fail' => ['happened' => 'It broke again.'],
                'blocked' => ['reason' => 'Data missing'],
                'not_applicable' => ['reason' => 'Out of scope'],
                default => [],
            };
            $this->judge($this->tester, $attempt, 1, $at + 1, $verdict, $more);
        }
        if ($finish) {
            $this->as($this->tester, 'POST', "/attempts/{$attempt}/finish", [])->assertOk();
            self::assertSame('finished', Attempt::query()->findOrFail($attempt)->state->value);
        }

        return $attempt;
    }

    /**
     * @return array{string, ?int, ?int} where it stands, and how many of how many passed
     */
    private function state(): array
    {
        $read = $this->as($this->tester, 'GET', '/defects/TST-D1')->assertOk();

        return [(string) $read->json('defect.state'), $read->json('progress.passed'), $read->json('progress.of')];
    }

    /**
     * @return array<string, mixed>
     */
    private function progress(): array
    {
        return (array) $this->as($this->tester, 'GET', '/defects/TST-D1')->json('progress');
    }

    /**
     * @return array<string, mixed> the newest line of its history
     */
    private function last(): array
    {
        $all = (array) $this->as($this->tester, 'GET', '/defects/TST-D1')->json('history');

        return end($all) ?: [];
    }
}
