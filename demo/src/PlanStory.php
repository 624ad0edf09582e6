<?php

declare(strict_types=1);

namespace LucidStep\Demo;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Actions\CaseNeeds;
use LucidStep\App\Areas\Casebook\Actions\SaveCase;
use LucidStep\App\Areas\Cycles\Actions\AssignEntries;
use LucidStep\App\Areas\Cycles\Actions\BlockDependents;
use LucidStep\App\Areas\Cycles\Actions\BulkEditCycles;
use LucidStep\App\Areas\Cycles\Actions\BulkEditEntries;
use LucidStep\App\Areas\Cycles\Actions\ChangeCycleState;
use LucidStep\App\Areas\Cycles\Actions\Milestones;
use LucidStep\App\Areas\Cycles\Actions\SaveCycle;
use LucidStep\App\Areas\Cycles\EntryChanges\AddCondition;
use LucidStep\App\Areas\Cycles\EntryChanges\AssignEntriesTo;
use LucidStep\App\Areas\Cycles\EntryChanges\AssignMany;
use LucidStep\App\Areas\Cycles\EntryChanges\SetWindow;
use LucidStep\App\Areas\Setup\Actions\SaveAxes;
use LucidStep\App\Areas\Setup\Actions\SaveCalendar;
use LucidStep\App\Areas\Setup\Actions\SaveEnvironments;
use LucidStep\App\Areas\Setup\Actions\SaveReleases;
use LucidStep\App\Areas\Setup\Data\EnvironmentInput;
use LucidStep\App\Areas\Setup\Queries\SetupState;
use LucidStep\App\Areas\Walk\Actions\DecideQueueItems;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\CycleState;

/**
 * How the demo's lead planned: releases, axes, milestones, capacity, conditions, a cycle still being planned. By the
 * actions that people use.
 */
final class PlanStory
{
    private const VALUES = [
        'Device' => ['Desktop', 'Quay tablet', 'Phone'],
        'Screen' => ['wide', 'upright', 'small'],
        'Browser' => ['Kestrel', 'Heron'],
    ];

    private const FORBIDDEN = [['Desktop', 'upright'], ['Desktop', 'small'], ['Quay tablet', 'small'], ['Phone', 'wide']];

    public function __construct(
        private readonly SaveAxes $axes,
        private readonly SaveReleases $releases,
        private readonly SaveEnvironments $environments,
        private readonly SaveCalendar $calendar,
        private readonly Milestones $milestones,
        private readonly SaveCycle $keep,
        private readonly ChangeCycleState $move,
        private readonly BulkEditEntries $acts,
        private readonly BulkEditCycles $cycles,
        private readonly AssignEntries $assign,
        private readonly BlockDependents $stops,
        private readonly DecideQueueItems $judge,
        private readonly CaseNeeds $needs,
        private readonly SaveCase $save,
    ) {}

    /**
     * What there is before anything is planned.
     *
     * @param  array<string, User>  $people
     */
    public function setUp(Project $project, array $people, Carbon $today): void
    {
        foreach (['4.1' => ['4.1.0-3'], '4.2' => ['4.2.0-5', '4.2.0-7']] as $name => $builds) {
            $release = $this->releases->release($project, (string) $name);
            Build::query()
                ->where('project_id', $project->id)
                ->whereIn('name', $builds)
                ->update(['release_id' => $release->id]);
        }
        $builds = Build::query()->where('project_id', $project->id)->pluck('id', 'name');
        ($this->environments)(
            $project,
            [
                new EnvironmentInput(null, 'Rehearsal', '', $builds['4.2.0-7'], 'Last night\'s sailings; emptied every Monday at 4:00.'),
                new EnvironmentInput(
                    null,
                    'Quay office',
                    'https://quay.skerrywick.test/booking',
                    $builds['4.1.0-3'],
                    'Only from the network of the quay.',
                ),
            ],
            Seen::of([]),
        );
        $this->axes->write(
            $project,
            array_map(
                static fn(string $name, array $values): array => [
                    'name' => $name,
                    'values' => array_map(static fn(string $v): array => ['name' => $v], $values),
                ],
                array_keys(self::VALUES),
                self::VALUES,
            ),
            array_map(
                static fn(array $p): array => ['axis' => 'Device', 'value' => $p[0], 'other_axis' => 'Screen', 'other_value' => $p[1]],
                self::FORBIDDEN,
            ),
            Seen::of([[], []]),
        );
        $values = DB::table('axis_values')
            ->join('axes', 'axes.id', '=', 'axis_id')
            ->where('project_id', $project->id)
            ->pluck('axis_values.id', 'axis_values.name');
        foreach (DB::table('configurations')->where('project_id', $project->id)->get() as $configuration) {
            DB::table('configuration_values')->insert(
                array_map(
                    static fn(string $v): array => ['configuration_id' => $configuration->id, 'value_id' => $values[$v]],
                    explode(', ', $configuration->name),
                ),
            );
        }
        $this->calendar->write(
            $project,
            [1, 2, 3, 4, 5, 6],
            [$today->copy()->addDays(12)->toDateString()],
            $project->time_zone,
            Seen::of(SetupState::calendar($project)),
        );
        foreach (
            [
                'tobias' => [60, []],
                'anouk' => [45, [4]],
                'piet' => [30, [2, 3]],
                'maren' => [15, []],
                'corin' => [0, []],
                'lina' => [0, []],
                'edda' => [0, []],
            ]
            as $name => [$minutes, $off]
        ) {
            $member = Membership::query()->where('project_id', $project->id)->where('user_id', $people[$name]->id)->firstOrFail();
            $this->calendar->person(
                $member,
                $minutes,
                array_map(static fn(int $d): string => $today->copy()->addDays($d)->toDateString(), $off),
                Seen::of(SetupState::time($member)),
            );
        }
        $this->milestones->write($project, [
            'name' => 'Bookings open',
            'type' => 'opening',
            'description' => 'The first islanders book by themselves.',
            'due_on' => $today->copy()->subDays(12)->toDateString(),
        ]);
        $this->milestones->write($project, [
            'name' => 'Summer timetable',
            'type' => 'release',
            'description' => 'Release 4.2 is in the hands of the crews before the summer timetable begins.',
            'due_on' => $today->copy()->addDays(10)->toDateString(),
        ]);
        foreach (
            [[55, 54, 'only_if_passed'], [56, 54, 'after'], [46, 45, 'only_if_passed'], [39, 36, 'only_if_passed'], [44, 42, 'after']]
            as [$case, $needs, $kind]
        ) {
            $this->needs->write($this->case($project, $case), $people['anouk'], [['case' => "SKR-C{$needs}", 'kind' => $kind]]);
        }
    }

    /**
     * What the lead did to the cycles of the demo, once they were walked.
     *
     * @param  array<string, User>  $people
     */
    public function goOn(Project $project, array $people, Carbon $today): void
    {
        $lead = $people['maren'];
        $goals = DB::table('milestones')->where('project_id', $project->id)->pluck('id', 'name');
        $testers = array_map(static fn(string $n): string => $people[$n]->id, ['tobias', 'anouk', 'piet']);
        foreach (
            [
                'SKR-R1' => ['Bookings open', 'smoke', 'Release 4.1'],
                'SKR-R2' => ['Summer timetable', 'system', 'Release 4.2'],
                'SKR-R3' => ['Summer timetable', 'regression', 'Release 4.2'],
            ]
            as $key => [$goal, $phase, $folder]
        ) {
            $cycle = Cycle::query()->where('key', $key)->firstOrFail();
            $closed = CycleState::Closed === $cycle->state ? $cycle->closed_at : null;
            $cycle->update(['state' => CycleState::Released]);
            $this->keep->change(
                $cycle,
                $lead,
                [
                    'milestone_id' => $goals[$goal],
                    'phase' => $phase,
                    'folder' => $folder,
                    'testers' => $testers,
                    'watchers' => [$people['corin']->id, $people['lina']->id],
                ],
                $cycle->revision,
            );
            if (null !== $closed) {
                ($this->move)($cycle, $lead, CycleState::Closed);
                $cycle->refresh()->update(['closed_at' => $closed]);
                $this->move->signOff($cycle, $lead, '');
            }
        }
        // What follows is news to them on their next day.
        Membership::query()
            ->where('project_id', $project->id)
            ->whereIn('user_id', $testers)
            ->update(['today_seen_at' => Carbon::now()->subHour()]);
        $release = Cycle::query()->where('key', 'SKR-R2')->firstOrFail();
        ($this->cycles)($project->id, $lead, [$release->id], ['days' => 1]);
        // The price band of vehicles is still wrong: what is built on it makes no sense yet.
        foreach ([[32, 26], [34, 32]] as [$case, $needs]) {
            ($this->acts)($release, $lead, new AddCondition($this->entry($release, $needs)->id, ConditionKind::OnlyIfPassed), [
                $this->entry($release, $case)->id,
            ]);
        }
        $this->stops->apply($this->entry($release, 26), $people['piet']);
        $this->judge->ask(
            $this->entry($release, 8),
            $people['anouk'],
            'The booking of sixty seats belongs to a school. May I use the 16:40 sailing instead?',
        );
        ($this->acts)($release, $lead, new SetWindow($today->copy()->addDay()->setTime(8, 0)->utc(), null), [
            $this->entry($release, 57)->id,
        ]);
        ($this->acts)(
            $release,
            $lead,
            new AssignEntriesTo($people['piet']->id, 'Tobias has the desk on Friday. The group of nine is in the test data already.'),
            [$this->entry($release, 20)->id],
        );
        Entry::query()
            ->whereKey($this->entry($release, 20)->id)
            ->update(['assigned_at' => Carbon::now()]);
        $case = $this->case($project, 46)->load('version.steps');
        $steps = $case->version->text()->toArray()['steps'];
        $steps[0]['expected'] = trim($steps[0]['expected'] . ' The time stands in the islands’ own zone.');
        $this->save->save($case, $people['anouk'], [...$case->version->text()->toArray(), 'steps' => $steps], $case->revision);
        $next = $this->keep->make($project, $lead, [
            'name' => 'Summer timetable, last look',
            'description' => 'Everything that takes money, once more on the build that goes out.',
            'starts_on' => $today->copy()->addDays(5)->toDateString(),
            'ends_on' => $today->copy()->addDays(9)->toDateString(),
            'build_id' => Build::query()->where('name', '4.2.0-7')->value('id'),
            'milestone_id' => $goals['Summer timetable'],
            'phase' => 'acceptance',
            'folder' => 'Release 4.2',
            'priority' => 'high',
            'testers' => $testers,
            'watchers' => [$people['corin']->id],
            'picks' => [
                'filter' => ['priority' => 'critical,high', 'state' => 'approved'],
                'configurations' => DB::table('configurations')
                    ->where('project_id', $project->id)
                    ->whereIn('name', ['Quay tablet, upright', 'Phone, small'])
                    ->pluck('id')
                    ->all(),
                'usual' => true,
            ],
        ]);
        $given = (array) $this->assign->preview(
            $next,
            $testers,
            [],
            array_values(DB::table('entries')->where('cycle_id', $next->id)->orderBy('position')->limit(24)->pluck('id')->all()),
        )->given;
        $handOut = new AssignMany($given, \sprintf('Handed out %d entries to 3 people', \count($given)));
        ($this->acts)($next, $lead, $handOut, array_map(strval(...), array_keys($given)));
    }

    private function entry(Cycle $cycle, int $case): Entry
    {
        return Entry::query()->where('cycle_id', $cycle->id)->whereHas('case', static fn($q) => $q->where('number', $case))->firstOrFail();
    }

    private function case(Project $project, int $number): TestCase
    {
        return TestCase::query()->where('project_id', $project->id)->where('number', $number)->firstOrFail();
    }
}
