<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\EntryAddition;
use LucidStep\App\Models\JobState;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\CycleLogKind;

/**
 * Writes the entries of an addition: all at once, or in pieces by a job that can be stopped; then none of them stays.
 */
final readonly class InsertEntries
{
    private const CHUNK = 1000;

    public function __construct(private CycleLog $log) {}

    /**
     * All of it within the transaction that is open.
     */
    public function all(EntryAddition $addition, Cycle $cycle, Project $project): EntryAddition
    {
        foreach ($this->chunks($addition, $cycle, $project) as $rows) {
            DB::table('entries')->insert($rows);
        }

        return $this->finish($addition, $cycle);
    }

    /**
     * The job's part: in pieces, each of its own transaction, so that progress shows and stopping is heard.
     */
    public function run(EntryAddition $addition): void
    {
        $cycle = Cycle::query()->findOrFail($addition->cycle_id);
        $project = Project::query()->findOrFail($addition->project_id);
        foreach ($this->chunks($addition, $cycle, $project) as $rows) {
            $going = DB::transaction(static function () use ($addition, $rows): bool {
                $now = EntryAddition::query()->lockForUpdate()->findOrFail($addition->id);
                if (JobState::Running !== $now->state) {
                    return false;
                }
                DB::table('entries')->insert($rows);
                $addition->done += \count($rows);
                $now->update(['done' => $addition->done]);

                return true;
            });
            if (!$going) {
                $this->takeBack($addition, JobState::Cancelled);

                return;
            }
        }
        DB::transaction(function () use ($addition, $cycle): void {
            $this->finish($addition->refresh(), $cycle);
        });
    }

    public function takeBack(EntryAddition $addition, JobState $state, string $problem = ''): void
    {
        DB::transaction(function () use ($addition, $state, $problem): void {
            DB::table('entries')->where('addition_id', $addition->id)->delete();
            $addition->refresh()->update(['state' => $state, 'problem' => $problem, 'done' => 0]);
            ($this->log)(
                Cycle::query()->findOrFail($addition->cycle_id),
                null,
                CycleLogKind::AdditionStopped,
                'Adding entries was stopped; none was added',
            );
        });
    }

    /**
     * @return \Generator<int, list<array<string, mixed>>>
     */
    private function chunks(EntryAddition $addition, Cycle $cycle, Project $project): \Generator
    {
        $there = $this->there($cycle);
        $at = (int) DB::table('entries')->where('cycle_id', $cycle->id)->max('position');
        $now = Carbon::now();
        $rows = [];
        $picks = new EntrySelection($project, $addition->picks, $addition->actor_id);
        foreach ($picks->entries() as $entry) {
            $key = self::key($entry['case']->id, $entry['configuration'], $entry['rows']);
            if (isset($there[$key])) {
                continue;
            }
            $there[$key] = ['case' => $entry['case']->id];
            $rows[] = [
                'id' => (string) Str::uuid7(),
                'project_id' => $cycle->project_id,
                'cycle_id' => $cycle->id,
                'case_id' => $entry['case']->id,
                'case_version_id' => $entry['case']->version,
                'configuration_id' => $entry['configuration'],
                'position' => ++$at,
                'assignee_id' => $cycle->default_assignee_id,
                'row_ids' => null === $entry['rows'] ? null : json_encode($entry['rows'], \JSON_THROW_ON_ERROR),
                'rounds' => $entry['rounds'],
                'addition_id' => $addition->id,
                'created_at' => $now,
                'updated_at' => $now,
            ];
            if (self::CHUNK === \count($rows)) {
                yield $rows;
                $rows = [];
            }
        }
        if ([] !== $rows) {
            yield $rows;
        }
    }

    private function finish(EntryAddition $addition, Cycle $cycle): EntryAddition
    {
        $conditions = $addition->picks['usual'] ?? false ? $this->usual($cycle) : 0;
        $addition->update(['state' => JobState::Done, 'done' => $addition->total, 'facts' => ['conditions' => $conditions]]);
        $user = User::query()->find($addition->actor_id);
        ($this->log)(
            $cycle,
            $user,
            CycleLogKind::EntriesAdded,
            \sprintf('Added %s %s', number_format($addition->total), 1 === $addition->total ? 'entry' : 'entries') .
                ($conditions > 0 ? " and {$conditions} usual conditions" : ''),
        );

        return $addition;
    }

    /**
     * Gives entries the conditions that their cases usually have, on the first entry of the needed case in the same
     * configuration; those that would make a loop are left out.
     *
     * @return int how many are new
     */
    private function usual(Cycle $cycle): int
    {
        $wanted = DB::select(
            <<<'SQL'
            select distinct on (e.id, n.case_id) e.id as entry_id, n.id as needs_id, c.kind
            from entries e join case_conditions c on c.case_id = e.case_id
            join entries n on n.cycle_id = e.cycle_id and n.case_id = c.needs_id and n.configuration_id is not distinct
                from e.configuration_id
            where e.cycle_id = ? and not exists (select 1 from entry_conditions x where x.entry_id = e.id and x.needs_id = n.id)
            order by e.id, n.case_id, n.position
            SQL
            ,
            [$cycle->id],
        );
        if ([] === $wanted) {
            return 0;
        }
        $kept = Conditions::of(ReadCycle::conditions($cycle->id))->joinable(ReadCycle::asConditions($wanted));
        foreach (array_chunk($kept, 1000) as $some) {
            DB::table('entry_conditions')->insert(
                array_map(
                    static fn(Condition $c): array => ['entry_id' => $c->entry, 'needs_id' => $c->needs, 'kind' => $c->kind->value],
                    $some,
                ),
            );
        }

        return \count($kept);
    }

    /**
     * @return array<string, array{case: string}> entries that the cycle has, by what makes them the same
     */
    public function there(Cycle $cycle): array
    {
        $there = [];
        foreach (
            DB::table('entries')
                ->where('cycle_id', $cycle->id)
                ->get(['case_id', 'configuration_id', 'row_ids'])
            as $row
        ) {
            $there[self::key($row->case_id, $row->configuration_id, null === $row->row_ids ? null : json_decode($row->row_ids, true))] = [
                'case' => $row->case_id,
            ];
        }

        return $there;
    }

    /**
     * What makes two entries the same: the case, the configuration and the choice of rows.
     *
     * @param  ?list<string>  $rows
     */
    public static function key(string $case, ?string $configuration, ?array $rows): string
    {
        $rows ??= [];
        sort($rows);

        return "{$case} {$configuration} " . implode(',', $rows);
    }
}
