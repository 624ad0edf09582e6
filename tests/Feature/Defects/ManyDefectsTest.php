<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Defects;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * One act on many defects: each as if it were changed alone.
 */
final class ManyDefectsTest extends FeatureTestCase
{
    private User $me;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person('tess');
        foreach (['minor', 'major', 'critical', 'major'] as $at => $severity) {
            $this->as($this->me, 'POST', '/projects/TST/defects', [
                'title' => 'Fault ' . ($at + 1),
                'severity' => $severity,
                'labels' => 0 === $at ? 'quay' : '',
            ])->assertCreated();
        }
    }

    public function test_an_act_is_seen_beforehand_done_and_taken_back_as_one(): void
    {
        $before = $this->kept();
        $act = ['filter' => ['q' => 'fault'], 'changes' => ['severity' => 'major', 'labels_add' => 'gate', 'labels_remove' => 'Quay']];
        $seen = $this->as($this->me, 'POST', '/projects/TST/defect-act-previews', $act)->assertOk();
        $seen->assertJsonPath('changed', 4)->assertJsonPath('unchanged', 0);
        self::assertSame(
            [['severity', 'minor', 'major'], ['labels', 'quay', 'gate']],
            array_map(array_values(...), (array) $seen->json('samples.0.changes')),
        );
        self::assertSame($before, $this->kept(), 'looking changes nothing');
        self::assertSame(0, DB::table('notices')->count());
        $done = $this->as($this->me, 'POST', '/projects/TST/defect-acts', $act)->assertOk()->assertJsonPath('title', 'Changed 4 defects');
        $this->as($this->me, 'GET', '/projects/TST/defects?label=gate&severity=major')->assertJsonCount(4, 'items');
        $this->as($this->me, 'PATCH', '/defects/TST-D2', ['priority' => 'now', 'was' => ['priority' => null]])->assertOk();
        $undone = $this->as($this->me, 'POST', "/defect-acts/{$done->json('act_id')}/undo")->assertOk();
        $undone
            ->assertJsonPath('changed', 3)
            ->assertJsonPath('refused.0', ['key' => 'TST-D2', 'title' => 'Fault 2', 'why' => 'It was changed again since.']);
        self::assertSame(array_diff_key($before, ['TST-D2' => 1]), array_diff_key($this->kept(), ['TST-D2' => 1]));
        $this->as($this->me, 'POST', "/defect-acts/{$done->json('act_id')}/undo")->assertConflict();
    }

    public function test_a_move_refuses_for_each_what_it_would_refuse_alone(): void
    {
        $dev = $this->world->person('dev', Role::Developer);
        $this->as($this->me, 'POST', '/defects/TST-D1/moves', ['state' => 'closed', 'note' => 'Old'])->assertOk();
        $this->as($dev, 'POST', '/defects/TST-D2/moves', ['state' => 'in_work'])->assertOk();
        $before = $this->kept();
        $move = ['filter' => [], 'changes' => ['state' => 'fixed', 'fixed_build_id' => $this->world->build->id, 'component' => '']];
        $done = $this->as($dev, 'POST', '/projects/TST/defect-acts', $move)->assertOk();
        $done->assertJsonPath('changed', 3)->assertJsonPath('refused.0.key', 'TST-D1');
        self::assertStringContainsString('cannot become fixed', (string) $done->json('refused.0.why'));
        self::assertSame(['closed', 'fixed', 'fixed', 'fixed'], array_column($this->kept(), 'state'));
        $this->as($dev, 'POST', "/defect-acts/{$done->json('act_id')}/undo")
            ->assertOk()
            ->assertJsonPath('changed', 3);
        self::assertSame($before, $this->kept(), 'state, build and time are as they were');
        $refused = $this->as($dev, 'POST', '/projects/TST/defect-acts', [
            'filter' => ['state' => 'open'],
            'changes' => ['state' => 'rejected', 'severity' => 'trivial'],
        ])->assertOk();
        $refused->assertJsonPath('act_id', null)->assertJsonPath('refused.0.why', 'Say why in a few words.');
        self::assertSame($before, $this->kept(), 'where the move is refused, nothing else of it changes either');
    }

    public function test_bad_input_is_told_by_field_and_another_s_act_stays(): void
    {
        $post = fn(array $changes, array $filter = []): mixed => $this->as($this->me, 'POST', '/projects/TST/defect-acts', [
            'filter' => $filter,
            'changes' => $changes,
        ]);
        $post([])->assertUnprocessable()->assertJsonPath('errors.changes.0', 'Say what is to be otherwise.');
        $post(['component' => 'engine'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['component']]);
        $post(['severity' => 'huge'])->assertUnprocessable();
        $post(['severity' => 'minor'], ['ids' => Defect::query()->where('number', 1)->value('id')])
            ->assertOk()
            ->assertJsonPath('changed', 0);
        $act = $post(['severity' => 'trivial'])
            ->assertOk()
            ->json('act_id');
        $this->as($this->world->person('other'), 'POST', "/defect-acts/{$act}/undo")->assertForbidden();
        $this->as($this->world->lead(), 'POST', "/case-acts/{$act}/undo")->assertNotFound();
        $this->as($this->world->lead(), 'POST', "/defect-acts/{$act}/undo")->assertOk();
    }

    public function test_filters_are_kept_for_oneself_or_for_all_and_groups_are_counted(): void
    {
        $lead = $this->world->lead();
        $keep = [
            'name' => 'Grave ones',
            'shared' => true,
            'filter' => ['severity' => 'critical,major', 'sort' => 'age', 'ids' => 'x', 'no' => '1'],
        ];
        $this->as($this->me, 'POST', '/projects/TST/defect-filters', $keep)
            ->assertCreated()
            ->assertJsonPath('filter', ['severity' => 'critical,major', 'sort' => 'age']);
        $this->as($lead, 'GET', '/projects/TST/defect-choices')->assertOk()->assertJsonPath('filters.0.name', 'Grave ones');
        $this->as($lead, 'GET', '/projects/TST/filters')->assertExactJson([]);
        $dev = $this->world->person('dev', Role::Developer);
        $this->as($dev, 'POST', '/projects/TST/defect-filters', $keep)->assertForbidden();
        $this->as($dev, 'POST', '/projects/TST/defect-filters', [...$keep, 'shared' => false])->assertCreated();
        $grouped = $this->as($lead, 'GET', '/projects/TST/defects?severity=critical,major,minor&group=severity')->assertOk();
        self::assertSame([['critical', 1], ['major', 2], ['minor', 1]], array_map(array_values(...), (array) $grouped->json('groups')));
        self::assertSame(['TST-D3', 'TST-D4', 'TST-D2', 'TST-D1'], array_column((array) $grouped->json('items'), 'key'));
        $this->as($this->me, 'POST', '/defects/TST-D4/comments', ['text' => 'Only at Ebbe'])->assertCreated();
        $this->as($this->me, 'GET', '/projects/TST/defects?q=FAULT%20ebbe')
            ->assertJsonPath('items.0.key', 'TST-D4')
            ->assertJsonCount(1, 'items');
        $comment = (string) DB::table('defect_comments')->value('id');
        $admin = $this->world->person('the admin', Role::Admin);
        $this->as($admin, 'POST', "/defect-comments/{$comment}/removals", ['reason' => 'A name'])->assertOk();
        $this->as($this->me, 'GET', '/projects/TST/defects?q=ebbe')->assertJsonCount(0, 'items');
        foreach (['changed', '-age', 'priority'] as $sort) {
            $this->as($this->me, 'GET', "/projects/TST/defects?sort={$sort}")
                ->assertOk()
                ->assertJsonCount(4, 'items');
        }
        $this->as($this->me, 'GET', '/projects/TST/defects?component=none&priority=none&assignee=nobody')->assertJsonCount(4, 'items');
        $this->as($this->me, 'GET', '/projects/TST/defects?build=nonsense')->assertJsonCount(0, 'items');
    }

    /**
     * @return array<string, array<string, mixed>> what is kept of each, by key, without what counts changes
     */
    private function kept(): array
    {
        return Defect::query()
            ->orderBy('number')
            ->get()
            ->mapWithKeys(
                static fn(Defect $d): array => [
                    $d->key => array_diff_key(
                        $d->getAttributes(),
                        array_flip(['version', 'updated_at', 'searched', 'folded', 'said', 'talked']),
                    ),
                ],
            )
            ->all();
    }
}
