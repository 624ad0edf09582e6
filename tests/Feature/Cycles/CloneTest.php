<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Cycles;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Membership;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * A cycle again: in which milestone, and what of it cannot come along.
 */
final class CloneTest extends FeatureTestCase
{
    public function test_a_clone_past_its_milestone_goes_into_another_or_into_none(): void
    {
        $lead = $this->world->lead();
        [$near, $far] = array_map(
            fn(string $due): string => (string) $this->as($lead, 'POST', '/projects/TST/milestones', [
                'name' => "Due {$due}",
                'type' => 'opening',
                'due_on' => $due,
            ])->json('id'),
            ['2026-12-10', '2027-01-31'],
        );
        $cycle = $this->world->cycle;
        $cycle->update(['milestone_id' => $near, 'starts_on' => '2026-12-01', 'ends_on' => '2026-12-05']);
        $this->world->entry();
        $how = ['name' => 'Again', 'starts_on' => '2026-12-08'];
        $late = '“Again” would end on 2026-12-12, after “Due 2026-12-10” on 2026-12-10.';
        $this->as($lead, 'POST', '/cycles/TST-R1/clone-previews', $how)
            ->assertOk()
            ->assertJsonPath('faults', [$late]);
        $this->as($lead, 'POST', '/cycles/TST-R1/clones', $how)->assertUnprocessable()->assertJsonPath('errors.starts_on.0', $late);
        foreach ([[$far, 'Far'], [null, 'None']] as [$milestone, $name]) {
            $with = [...$how, 'name' => $name, 'milestone_id' => $milestone];
            $this->as($lead, 'POST', '/cycles/TST-R1/clone-previews', $with)->assertOk()->assertJsonPath('faults', []);
            $this->as($lead, 'POST', '/cycles/TST-R1/clones', $with)->assertCreated()->assertJsonPath('cycle.milestone_id', $milestone);
        }
        $elsewhere = (string) $this->as($lead, 'POST', '/cycles/TST-R1/clones', [
            ...$how,
            'milestone_id' => '0190a000-0000-7000-8000-000000000001',
        ])
            ->assertUnprocessable()
            ->json('errors.milestone_id.0');
        self::assertNotSame('', $elsewhere);
    }

    public function test_what_cannot_come_along_is_said_and_the_rest_obeys_the_rules_of_today(): void
    {
        $lead = $this->world->lead();
        $gone = $this->world->person('gone');
        $table = (string) $this->as($lead, 'POST', '/projects/TST/data-tables', [
            'name' => 'Fares',
            'columns' => [['name' => 'fare', 'secret' => false]],
            'rows' => [['id' => null, 'cells' => ['1']], ['id' => null, 'cells' => ['2']], ['id' => null, 'cells' => ['3']]],
        ])->json('table.id');
        $rows = DB::table('data_rows')->where('table_id', $table)->orderBy('position')->pluck('id')->all();
        [$plain, $retired, $data, $lost, $new] = array_map(fn(): Entry => $this->world->entry($gone), range(1, 5));
        DB::table('cases')
            ->where('id', $retired->case_id)
            ->update(['state' => 'retired']);
        DB::table('cases')
            ->whereIn('id', [$data->case_id, $lost->case_id])
            ->update(['table_id' => $table]);
        $data->update(['row_ids' => [$rows[0], $rows[1]], 'rounds' => 2]);
        $lost->update(['row_ids' => [$rows[1]], 'rounds' => 1]);
        DB::table('data_rows')->where('id', $rows[1])->delete();
        // Approved is what these are walked by; one of them was never approved.
        $this->world->policies(['only_approved_cases' => true]);
        DB::table('cases')
            ->where('id', '<>', $new->case_id)
            ->update(['approved_version_id' => DB::raw('version_id')]);
        $approved = $plain->case->version_id;
        $this->as($lead, 'PUT', "/cases/{$plain->case->key}", [
            'title' => 'Newer',
            'steps' => [['action' => 'Other']],
            'revision' => $plain->case->revision,
        ])->assertOk();
        $this->world->needs($plain, $retired, 'after');
        $this->world->needs($data, $plain, 'after');
        Membership::query()
            ->where('user_id', $gone->id)
            ->update(['role' => Role::Reader]);
        $how = ['name' => 'Again', 'starts_on' => '2026-12-08'];
        $this->as($lead, 'POST', '/cycles/TST-R1/clone-previews', $how)
            ->assertOk()
            ->assertJsonPath('moves.0.entries', 2)
            ->assertJsonPath('notes', [
                '1 entry is left out: their case is retired or in the bin.',
                '1 entry is left out: their data rows are not there any more.',
                '1 entry is left out: their case is not approved.',
                '1 entry is walked with fewer data rows: some are not there any more.',
                'Gone does not record here any more: 2 entries are assigned anew.',
                'A condition falls away with its entry.',
            ]);
        $this->as($lead, 'POST', '/cycles/TST-R1/clones', $how)->assertCreated()->assertJsonPath('cycle.total', 2);
        $copies = Entry::query()
            ->where('cycle_id', Cycle::query()->where('key', 'TST-R2')->value('id'))
            ->orderBy('position')
            ->get();
        self::assertSame([$plain->case_id, $data->case_id], $copies->pluck('case_id')->all());
        self::assertSame([$approved, null, 1], [$copies[0]?->case_version_id, $copies[0]?->assignee_id, $copies[0]?->rounds]);
        self::assertSame([$rows[0]], $copies[1]?->row_ids);
        self::assertSame(1, DB::table('entry_conditions')->whereIn('entry_id', $copies->pluck('id'))->count());
    }
}
