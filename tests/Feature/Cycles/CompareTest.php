<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Cycles;

use LucidStep\App\Models\Build;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Two cycles or builds beside each other: the earlier first, whichever page one came from.
 */
final class CompareTest extends FeatureTestCase
{
    public function test_the_earlier_build_stands_first_from_either_side_and_the_classes_are_those_of_the_rule(): void
    {
        $lead = $this->world->lead();
        $newer = Build::query()->create(['project_id' => $this->world->project->id, 'name' => '2.0', 'position' => 2]);
        // The cycle that was planned first tests the newer build.
        $this->world->cycle->update(['build_id' => $newer->id]);
        $now = array_map(fn(): Entry => $this->world->entry(null, 1), range(1, 4));
        $earlier = $this->again($now);
        foreach (['pass', 'fail', 'fail', 'pass'] as $at => $verdict) {
            $this->judge($now[$at], $verdict);
        }
        foreach (['fail', 'fail', 'pass', 'blocked'] as $at => $verdict) {
            $this->judge($earlier[$at], $verdict);
        }
        $asked = fn(string $one, string $other): array => (array) $this->as($lead, 'GET', "/cycles/{$one}/comparison?with={$other}")
            ->assertOk()
            ->json();
        $found = $asked('TST-R1', 'TST-R2');
        self::assertSame($found, $asked('TST-R2', 'TST-R1'));
        self::assertSame(['TST-R2', 'TST-R1'], [$found['before']['id'], $found['after']['id']]);
        self::assertSame(['no_longer_failing', 'still_failing', 'newly_failing', 'changed'], array_column($found['entries'], 'is'));
        $builds = fn(string $one, string $other): array => (array) $this->as(
            $this->world->person('reader', Role::Reader),
            'GET',
            "/projects/TST/build-comparison?one={$one}&other={$other}",
        )
            ->assertOk()
            ->json();
        $direct = $builds($newer->id, $this->world->build->id);
        self::assertSame($direct, $builds($this->world->build->id, $newer->id));
        self::assertSame(['1.0', '2.0'], [$direct['before']['short'], $direct['after']['short']]);
        self::assertSame(array_column($found['entries'], 'is'), array_column($direct['entries'], 'is'));
        // Of what was walked twice on a build, the last counts, in whichever cycle.
        $third = $this->again([$now[0]], $newer);
        $this->judge($third[0], 'fail');
        self::assertSame('still_failing', $builds($newer->id, $this->world->build->id)['entries'][0]['is']);
        foreach (['', 'x', '0190a000-0000-7000-8000-000000000001'] as $none) {
            $this->as($lead, 'GET', "/projects/TST/build-comparison?one={$newer->id}&other={$none}")->assertUnprocessable();
        }
    }

    /**
     * The same entries in another cycle, of the older build unless said else.
     *
     * @param  list<Entry>  $entries
     *
     * @return list<Entry>
     */
    private function again(array $entries, ?Build $build = null): array
    {
        $number = 1 + (int) Cycle::query()->max('number');
        $cycle = $this->world->cycle->replicate()->fill([
            'number' => $number,
            'key' => "TST-R{$number}",
            'name' => "Cycle {$number}",
            'build_id' => $build->id ?? $this->world->build->id,
        ]);
        $cycle->save();

        return array_map(
            static fn(Entry $e): Entry => Entry::query()
                ->create([...$e->only(['project_id', 'case_id', 'case_version_id', 'position']), 'cycle_id' => $cycle->id])
                ->refresh(),
            $entries,
        );
    }

    private function judge(Entry $entry, string $verdict): void
    {
        $this->as($this->world->lead(), 'POST', "/cycles/{$entry->cycle_id}/list-verdicts", [
            'ids' => [$entry->id],
            'verdict' => $verdict,
            'note' => 'seen elsewhere',
            'reason' => '',
        ])->assertOk();
    }
}
