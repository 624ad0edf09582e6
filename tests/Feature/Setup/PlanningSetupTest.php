<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Setup;

use Illuminate\Support\Facades\DB;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\World;

/**
 * What is tested on what: axes, configurations, releases, builds, the calendar.
 */
final class PlanningSetupTest extends FeatureTestCase
{
    private const AXES = [
        ['name' => 'Device', 'values' => [['name' => 'Phone'], ['name' => 'Tablet'], ['name' => 'Desktop']]],
        ['name' => 'Browser', 'values' => [['name' => 'Kestrel'], ['name' => 'Heron']]],
        ['name' => 'Language', 'values' => [['name' => 'English'], ['name' => 'Irish']]],
    ];

    public function test_axes_say_what_they_give_before_anything_is_made(): void
    {
        $lead = $this->world->lead();
        $forbidden = [['axis' => 'Device', 'value' => 'Tablet', 'other_axis' => 'Browser', 'other_value' => 'Kestrel']];
        $this->as($lead, 'POST', '/projects/TST/axis-checks', ['axes' => self::AXES, 'forbidden' => $forbidden])
            ->assertOk()
            ->assertJsonPath('all', 10)
            ->assertJsonPath('pairs', 6)
            ->assertJsonPath('impossible', ['Tablet with Kestrel'])
            ->assertJsonCount(15, 'untested');
        $this->as($lead, 'PUT', '/projects/TST/axes', ['axes' => self::AXES, 'forbidden' => $forbidden])
            ->assertOk()
            ->assertJsonCount(3, 'axes')
            ->assertJsonPath('forbidden.0.value', 'Tablet');
        $this->as($lead, 'POST', '/projects/TST/configurations', ['how' => 'one', 'values' => ['Device' => 'Phone', 'Browser' => 'Heron']])
            ->assertCreated()
            ->assertJsonPath('configurations.0.name', 'Phone, Heron');
        $this->as($lead, 'POST', '/projects/TST/configurations', ['how' => 'pairs'])
            ->assertCreated()
            ->assertJsonCount(7, 'configurations');
        $this->as($lead, 'POST', '/projects/TST/axis-checks', ['axes' => self::AXES, 'forbidden' => $forbidden])->assertJsonPath(
            'untested',
            [],
        );
        $this->as($lead, 'POST', '/projects/TST/configurations', ['how' => 'pairs'])
            ->assertCreated()
            ->assertJsonCount(7, 'configurations');
        $this->as($lead, 'POST', '/projects/TST/configurations', ['how' => 'all'])
            ->assertCreated()
            ->assertJsonCount(11, 'configurations');
    }

    public function test_a_value_in_use_stays_and_is_named_and_names_can_be_exchanged(): void
    {
        $lead = $this->world->lead();
        $axes = $this->as($lead, 'PUT', '/projects/TST/axes', ['axes' => self::AXES])->json('axes');
        $made = $this->as($lead, 'POST', '/projects/TST/configurations', [
            'how' => 'one',
            'values' => ['Device' => 'Phone', 'Browser' => 'Heron', 'Language' => 'Irish'],
        ])->json('configurations.0.id');
        $without = $axes;
        array_shift($without[0]['values']);
        $this->as($lead, 'PUT', '/projects/TST/axes', ['axes' => $without])
            ->assertConflict()
            ->assertJsonPath('detail', '“Phone” is used by Phone, Heron, Irish. Remove those configurations first.');
        // Two values change names; the configuration goes along.
        [$axes[1]['values'][0]['name'], $axes[1]['values'][1]['name']] = ['Heron', 'Kestrel'];
        $this->as($lead, 'PUT', '/projects/TST/axes', ['axes' => $axes])
            ->assertOk()
            ->assertJsonPath('configurations.0.values.1.name', 'Kestrel')
            ->assertJsonPath('configurations.0.name', 'Phone, Kestrel, Irish');
        $this->world->entry(null, 1, ['configuration_id' => $made]);
        $this->as($lead, 'DELETE', "/configurations/{$made}")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:in-use');
        $this->as($lead, 'PATCH', "/configurations/{$made}", ['name' => 'The quay phone'])
            ->assertOk()
            ->assertJsonPath('configurations.0.name', 'The quay phone');
    }

    public function test_what_is_taken_out_answers_with_what_is_left(): void
    {
        $lead = $this->world->lead();
        $axes = [['id' => null, 'name' => 'Tide', 'values' => [['id' => null, 'name' => 'High'], ['id' => null, 'name' => 'Low']]]];
        $this->as($lead, 'PUT', '/projects/TST/axes', ['axes' => $axes])->assertOk();
        $made = $this->as($lead, 'POST', '/projects/TST/configurations', ['how' => 'all'])->assertCreated();
        $release = $this->as($lead, 'POST', '/projects/TST/releases', ['name' => 'Spring'])
            ->assertCreated()
            ->json('releases');
        $spring = array_column((array) $release, 'id', 'name')['Spring'];
        $builds = $this->as($lead, 'POST', '/projects/TST/builds', ['name' => '9.9', 'release_id' => $spring])->assertCreated();
        $build = array_column((array) $builds->json('builds'), 'id', 'name')['9.9'];
        $gone = [
            'configurations' => array_column((array) $made->json('configurations'), 'id')[0],
            'builds' => $build,
            'releases' => $spring,
        ];
        foreach ($gone as $list => $id) {
            $left = $this->as($lead, 'DELETE', "/{$list}/{$id}")
                ->assertOk()
                ->json($list);
            self::assertIsArray($left);
            self::assertNotContains($id, array_column($left, 'id'), $list);
        }
    }

    public function test_bad_axes_are_refused_with_their_reason(): void
    {
        $lead = $this->world->lead();
        $this->as($lead, 'PUT', '/projects/TST/axes', ['axes' => [['name' => 'Device', 'values' => []]]])->assertUnprocessable();
        $this->as($lead, 'PUT', '/projects/TST/axes', ['axes' => [['name' => 'Device', 'values' => [['name' => 'x'], ['name' => 'x']]]]])
            ->assertUnprocessable()
            ->assertJsonPath('errors.axes.0', 'The axis “Device” has a value twice.');
        $this->as($lead, 'PUT', '/projects/TST/axes', [
            'axes' => self::AXES,
            'forbidden' => [['axis' => 'Device', 'value' => 'Watch', 'other_axis' => 'Browser', 'other_value' => 'Heron']],
        ])
            ->assertUnprocessable()
            ->assertJsonPath('errors.axes.0', 'There is no value “Watch” on the axis “Device”.');
        $this->as($this->world->person(), 'PUT', '/projects/TST/axes', ['axes' => self::AXES])->assertForbidden();
        $wide = array_map(
            static fn(int $i): array => [
                'name' => "Axis {$i}",
                'values' => array_map(static fn(int $v): array => ['name' => "v{$v}"], range(1, 9)),
            ],
            range(1, 4),
        );
        $this->as($lead, 'PUT', '/projects/TST/axes', ['axes' => $wide])->assertOk();
        $this->as($lead, 'POST', '/projects/TST/configurations', ['how' => 'all'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['how']]);
        self::assertSame(0, DB::table('configurations')->count());
    }

    public function test_releases_have_builds_and_what_was_tested_stays(): void
    {
        $lead = $this->world->lead();
        $release = $this->as($lead, 'POST', '/projects/TST/releases', ['name' => '4.2'])
            ->assertCreated()
            ->json('releases.0.id');
        $build = collect(
            (array) $this->as($lead, 'POST', '/projects/TST/builds', ['name' => '4.2.0-1', 'release_id' => $release])
                ->assertCreated()
                ->json('builds'),
        )->firstWhere('name', '4.2.0-1')['id'];
        $this->as($lead, 'POST', '/projects/TST/builds', ['name' => '4.2.0-1'])
            ->assertUnprocessable()
            ->assertJsonPath('errors.name.0', '“4.2.0-1” is there already.');
        $this->as($lead, 'DELETE', "/releases/{$release}")
            ->assertConflict()
            ->assertJsonPath('detail', '“4.2” stays: it has 1 build.');
        $this->as($lead, 'DELETE', "/builds/{$this->world->build->id}")
            ->assertConflict()
            ->assertJsonPath('detail', '“1.0” stays: it is used by 1 cycle.');
        $this->as($lead, 'PATCH', "/builds/{$build}", ['name' => '4.2.0-2', 'release_id' => null])->assertOk();
        $this->as($lead, 'DELETE', "/releases/{$release}")->assertOk();
        $this->as($lead, 'DELETE', "/builds/{$build}")->assertOk();
    }

    public function test_the_calendar_and_peoples_time(): void
    {
        $lead = $this->world->lead();
        $me = $this->world->person();
        $this->as($lead, 'PUT', '/projects/TST/calendar', [
            'working_days' => [1, 2, 3, 4],
            'holidays' => ['2026-12-25'],
            'time_zone' => 'Europe/Dublin',
        ])
            ->assertOk()
            ->assertJsonPath('working_days', [1, 2, 3, 4])
            ->assertJsonPath('time_zone', 'Europe/Dublin');
        $this->as($lead, 'PUT', '/projects/TST/calendar', ['working_days' => [8], 'holidays' => ['soon'], 'time_zone' => 'Nowhere'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['working_days.0', 'holidays.0', 'time_zone']]);
        $this->as($me, 'PUT', "/projects/TST/people/{$me->id}/capacity", [
            'minutes_per_day' => 240,
            'days_off' => ['2026-12-01'],
        ])->assertOk();
        $this->as($me, 'PUT', "/projects/TST/people/{$lead->id}/capacity", ['minutes_per_day' => 240])->assertForbidden();
        $this->as($lead, 'PUT', "/projects/TST/people/{$me->id}/capacity", ['minutes_per_day' => 1500])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['minutes_per_day']]);
        self::assertSame(
            [240, ['2026-12-01']],
            [$this->person($lead, $me->id)['minutes_per_day'], $this->person($lead, $me->id)['days_off']],
        );
        $other = (new World('OTH'))->person('stranger');
        $this->as($lead, 'PUT', "/projects/TST/people/{$other->id}/capacity", ['minutes_per_day' => 10])->assertNotFound();
    }

    /**
     * @return array<string, mixed>
     */
    private function person(\LucidStep\App\Models\User $as, string $id): array
    {
        return (array) collect((array) $this->as($as, 'GET', '/projects/TST/planning-setup')->json('people'))->firstWhere('id', $id);
    }

    public function test_time_comes_in_from_a_list_and_lines_that_mean_nobody_stay(): void
    {
        [$me, $lead] = [$this->world->person('Ana Bell'), $this->world->lead()];
        $me->update(['name' => 'Ana Bell']);
        $this->as($lead, 'PUT', "/projects/TST/people/{$me->id}/capacity", ['minutes_per_day' => 300, 'days_off' => ['2026-12-01']]);
        $text = "Person, Time a day\n{$me->email}, 4h 30m\nana bell, 2026-12-24..2026-12-25\nNobody, 6h\nAna Bell, often\nAna Bell, 6h";
        $this->as($me, 'POST', '/projects/TST/capacity-imports', ['text' => $text])->assertForbidden();
        $answer = $this->as($lead, 'POST', '/projects/TST/capacity-imports', ['text' => $text])->assertOk();
        self::assertSame([$me->id, $me->id, null, null, $me->id], array_column((array) $answer->json(), 'person_id'));
        self::assertStringContainsString('Nobody in this project is called Nobody', (string) $answer->json('2.problem'));
        $of = fn(): array => (array) collect((array) $this->as($lead, 'GET', '/projects/TST/planning-setup')->json('people'))->firstWhere(
            'id',
            $me->id,
        );
        self::assertSame([360, ['2026-12-01', '2026-12-24', '2026-12-25']], [$of()['minutes_per_day'], $of()['days_off']]);
        // Two who are called alike are told apart by address alone, and nobody is away for ever.
        $this->world->person('another')->update(['name' => 'Ana Bell']);
        $long = "{$me->email}, 2027-01-01..2027-12-31\n{$me->email}, 2028-01-01..2028-12-31\nAna Bell, 1h\n{$me->email}, 1h";
        $again = $this->as($lead, 'POST', '/projects/TST/capacity-imports', ['text' => $long])->assertOk();
        self::assertSame([$me->id, null, null, $me->id], array_column((array) $again->json(), 'person_id'));
        self::assertStringContainsString('Several people here', (string) $again->json('2.problem'));
        self::assertSame([60, 368], [$of()['minutes_per_day'], count($of()['days_off'])]);
        $this->as($lead, 'POST', '/projects/TST/capacity-imports', ['text' => ' '])->assertUnprocessable();
        $this->as($lead, 'POST', '/projects/TST/capacity-imports', ['text' => str_repeat("a, 1h\n", 5001)])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['text']]);
    }
}
