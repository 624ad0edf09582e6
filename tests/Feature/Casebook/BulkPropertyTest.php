<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;

final class BulkPropertyTest extends FeatureTestCase
{
    /**
     * Whatever is done to many cases at random: seen beforehand it says as many as are changed, and taken back all is as before.
     */
    public function test_property_a_change_of_many_does_what_was_shown_and_undo_gives_all_of_it_back(): void
    {
        mt_srand(11);
        $lead = $this->world->lead();
        $cases = array_map(fn(): string => $this->world->case(1)->id, range(1, 9));
        $folders = array_map(
            fn(string $name): string => (string) $this->as($lead, 'POST', '/projects/TST/folders', ['name' => $name])->json('id'),
            ['Tides', 'Fares'],
        );
        $this->as($lead, 'POST', '/projects/TST/case-acts', [
            'act' => 'edit',
            'filter' => ['ids' => implode(',', \array_slice($cases, 0, 5))],
            'changes' => ['labels_add' => ['smoke', 'Tide']],
        ])->assertOk();
        for ($n = 0; $n < 24; ++$n) {
            $ids = array_values(array_filter($cases, static fn(): bool => 0 === mt_rand(0, 1)));
            if ([] === $ids) {
                continue;
            }
            [$act, $changes] = $this->change($folders, $lead);
            $before = $this->state();
            $asked = ['act' => $act, 'filter' => ['ids' => implode(',', $ids)], 'changes' => $changes];
            $seen = $this->as($lead, 'POST', '/projects/TST/case-previews', $asked)->assertOk();
            $done = $this->as($lead, 'POST', '/projects/TST/case-acts', $asked)->assertOk();
            if ('move' !== $act) {
                self::assertSame($seen->json('changed'), $done->json('changed'), (string) json_encode($asked));
            }
            if (0 === $done->json('changed')) {
                self::assertSame($before, $this->state(), (string) json_encode($asked));

                continue;
            }
            self::assertNotSame($before, $this->state(), (string) json_encode($asked));
            $this->as($lead, 'POST', "/case-acts/{$done->json('act_id')}/undo")
                ->assertOk()
                ->assertJsonPath('refused', []);
            self::assertSame($before, $this->state(), (string) json_encode($asked));
            $this->as($lead, 'POST', "/case-acts/{$done->json('act_id')}/undo")->assertConflict();
        }
    }

    /**
     * What somebody changed after an act stays when the act is taken back, and is named; the rest goes back.
     */
    public function test_property_undo_leaves_what_was_changed_again_since(): void
    {
        mt_srand(12);
        $lead = $this->world->lead();
        $cases = array_map(fn(): string => $this->world->case(1)->id, range(1, 6));
        for ($n = 0; $n < 8; ++$n) {
            $priority = ['high', 'low'][$n % 2];
            $act = $this->as($lead, 'POST', '/projects/TST/case-acts', [
                'act' => 'edit',
                'filter' => ['ids' => implode(',', $cases)],
                'changes' => ['priority' => $priority],
            ])->json('act_id');
            $touched = array_values(array_filter($cases, static fn(): bool => 0 === mt_rand(0, 2)));
            foreach ($touched as $id) {
                $this->as($lead, 'POST', '/projects/TST/case-acts', [
                    'act' => 'edit',
                    'filter' => ['ids' => $id],
                    'changes' => ['labels_add' => ["again {$n}"]],
                ])->assertOk();
            }
            $undone = $this->as($lead, 'POST', "/case-acts/{$act}/undo")->assertOk();
            $keys = DB::table('cases')->whereIn('id', $touched)->orderBy('key')->pluck('key')->all();
            self::assertEqualsCanonicalizing($keys, array_column((array) $undone->json('refused'), 'key'));
            self::assertSame(
                $touched === [] ? 0 : \count($touched),
                DB::table('cases')->whereIn('id', $touched)->where('priority', $priority)->count(),
            );
            DB::table('cases')->update(['priority' => 'medium', 'priority_rank' => 3]);
        }
    }

    /**
     * @param  list<string>  $folders
     *
     * @return array{string, array<string, mixed>}
     */
    private function change(array $folders, User $lead): array
    {
        return [
            ['edit', ['priority' => ['critical', 'high', 'medium', 'low'][mt_rand(0, 3)]]],
            ['edit', ['labels_add' => ['smoke'], 'labels_remove' => ['TIDE']]],
            ['edit', ['estimate' => ['', '5m', '1h 30m'][mt_rand(0, 2)], 'automated' => 0 === mt_rand(0, 1)]],
            ['edit', ['owner_id' => [null, $lead->id][mt_rand(0, 1)], 'state' => 'retired']],
            ['move', ['folder_id' => [null, ...$folders][mt_rand(0, 2)]]],
            ['bin', []],
        ][mt_rand(0, 5)];
    }

    /**
     * @return list<string> what can be seen of every case
     */
    private function state(): array
    {
        return array_values(
            DB::table('cases')
                ->orderBy('number')
                ->get([
                    'key',
                    'folder_id',
                    'state',
                    'priority',
                    'priority_rank',
                    'automated',
                    'estimate_seconds',
                    'owner_id',
                    'labels',
                    'binned_at',
                    'position',
                ])
                ->map(static fn(\stdClass $c): string => (string) json_encode($c))
                ->all(),
        );
    }
}
