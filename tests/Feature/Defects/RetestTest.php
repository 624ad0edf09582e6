<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Defects;

use LucidStep\App\Models\Build;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;

/**
 * A fix comes back to whoever walked what failed.
 */
final class RetestTest extends FeatureTestCase
{
    use Walks;

    private User $tester;

    private User $lead;

    private Build $next;

    protected function setUp(): void
    {
        parent::setUp();
        [$this->tester, $this->lead] = [$this->world->person('tess'), $this->world->lead()];
        $this->next = Build::query()->create(['project_id' => $this->world->project->id, 'name' => '1.1', 'position' => 9]);
    }

    public function test_a_fix_proposes_what_failed_of_it_and_of_its_duplicates_and_one_act_asks_for_all(): void
    {
        [$one, $two] = [$this->failed('TST-D1'), $this->failed('TST-D2')];
        $this->move('TST-D2', 'duplicate', ['duplicate_of' => 'TST-D1']);
        self::assertSame([], $this->proposed('TST-D1'), 'nothing is fixed yet');
        $this->move('TST-D1', 'fixed', ['build_id' => $this->next->id]);
        self::assertSame([[$one->id, '1.1', true], [$two->id, '1.1', true]], $this->proposed('TST-D1'));
        self::assertSame($this->proposed('TST-D1'), $this->proposed('TST-D2'), 'seen from either');
        $ask = fn(array $ids): mixed => $this->as($this->lead, 'POST', '/defects/TST-D1/retests', ['entries' => $ids]);
        $ask([$one->id])
            ->assertUnprocessable()
            ->assertJsonPath('errors', ['entries.0' => ['A cycle tests an earlier build: take 1.1 into it first.']]);
        $this->world->cycle->update(['build_id' => $this->next->id]);
        self::assertSame([[$one->id, '1.1', false], [$two->id, '1.1', false]], $this->proposed('TST-D1'));
        $queue = array_values(
            array_filter(
                (array) $this->as($this->lead, 'GET', '/projects/TST/queue')->assertOk()->json('items'),
                static fn(array $i): bool => 'retest' === $i['kind'],
            ),
        );
        self::assertSame([$one->id, $two->id], array_column($queue, 'subject_id'));
        self::assertSame('TST-D1 fixed in 1.1: ask for a retest?', $queue[0]['text']);
        $ask([$one->id, $this->world->entry()->id])->assertUnprocessable();
        self::assertCount(2, $this->proposed('TST-D1'), 'where one cannot be asked for, none is');
        $ask([$one->id, $two->id])
            ->assertOk()
            ->assertExactJson([]);
        self::assertSame('TST-D1 fixed in 1.1.', $one->refresh()->retest_reason);
        self::assertSame('retest', $two->refresh()->display_state);
        $this->as($this->tester, 'POST', '/defects/TST-D1/retests', ['entries' => [$one->id]])->assertForbidden();
        $ask([])->assertUnprocessable()->assertJsonValidationErrors('entries');
    }

    public function test_what_waits_on_another_defect_says_on_which_and_is_not_asked_for(): void
    {
        $entry = $this->failed('TST-D1');
        $this->world->cycle->update(['build_id' => $this->next->id]);
        $attempt = (string) $entry->refresh()->last_attempt_id;
        $this->as($this->tester, 'POST', '/projects/TST/defects', ['title' => 'Another', 'attempt_id' => $attempt])->assertCreated();
        $this->move('TST-D1', 'fixed', ['build_id' => $this->next->id]);
        $this->as($this->tester, 'GET', '/defects/TST-D1/retests')
            ->assertOk()
            ->assertJsonPath('0.waits_on', ['TST-D2']);
        $this->as($this->lead, 'POST', '/defects/TST-D1/retests', ['entries' => [$entry->id]])
            ->assertUnprocessable()
            ->assertJsonPath('errors', ['entries.0' => ['TST-C1 still waits on TST-D2.']]);
        $this->as($this->lead, 'GET', '/projects/TST/queue')
            ->assertOk()
            ->assertJsonMissing(['kind' => 'retest']);
        $this->move('TST-D2', 'rejected', ['note' => 'As meant']);
        $this->as($this->tester, 'GET', '/defects/TST-D1/retests')->assertJsonPath('0.waits_on', []);
    }

    private function failed(string $key): Entry
    {
        $entry = $this->world->entry($this->tester);
        $attempt = $this->finished($entry, $this->tester, 'fail');
        $this->as($this->tester, 'POST', '/projects/TST/defects', [
            'title' => "It broke at {$key}",
            'attempt_id' => $attempt,
            'round' => 1,
            'step' => 1,
        ])
            ->assertCreated()
            ->assertJsonPath('defect.key', $key);

        return $entry->refresh();
    }

    /**
     * @param  array<string, string>  $more
     */
    private function move(string $key, string $to, array $more): void
    {
        $this->as($this->lead, 'POST', "/defects/{$key}/moves", ['state' => $to, ...$more])->assertOk();
    }

    /**
     * @return list<array{string, string, bool}> entry, build, and whether its cycle is behind
     */
    private function proposed(string $key): array
    {
        return array_values(
            array_map(
                static fn(array $r): array => [$r['entry_id'], $r['build'], $r['behind']],
                (array) $this->as($this->tester, 'GET', "/defects/{$key}/retests")
                    ->assertOk()
                    ->json(),
            ),
        );
    }
}
