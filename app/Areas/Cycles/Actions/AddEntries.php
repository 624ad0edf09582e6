<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Data\RefusedSelection;
use LucidStep\App\Areas\Cycles\Data\SelectedCase;
use LucidStep\App\Areas\Cycles\Data\SelectionCount;
use LucidStep\App\Areas\Cycles\Jobs\RunAddition;
use LucidStep\App\Areas\Cycles\Queries\Estimates;
use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\EntryAddition;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Planning\LoopRefused;

/**
 * Adds entries to a cycle, behind those it has. What is there in the same configuration and rows stays as it is, with
 * all that was walked. Many are added by a job that can be stopped: then none of them stays.
 */
final readonly class AddEntries
{
    /** More are added by a job. */
    public const AT_ONCE = 3000;

    public const MOST = 50_000;

    private const CHUNK = 1000;

    public function __construct(private CycleLog $log) {}

    /**
     * How much the picks are, before anything is written, and what time there is for it.
     *
     * @param  array<string, mixed>  $picks
     * @param  array{starts_on?: ?string, ends_on?: ?string, testers?: ?list<string>}  $when
     */
    public function count(Project $project, User $user, array $picks, ?Cycle $cycle = null, array $when = []): SelectionCount
    {
        $chosen = new EntrySelection($project, $picks, $user->id);
        $there = null === $cycle ? [] : $this->there($cycle);
        $estimates = new Estimates($project->id);
        $entries = $known = $seconds = 0;
        foreach ($chosen->entries() as $entry) {
            if (isset($there[self::key($entry['case']->id, $entry['configuration'], $entry['rows'])])) {
                $known++;
            } else {
                $entries++;
                $seconds += $estimates->entry(
                    $entry['case']->walk_times,
                    $entry['case']->estimate_seconds,
                    $entry['case']->steps_count,
                    $entry['rounds'],
                );
            }
        }
        $cases = $chosen->cases();
        [$days, $capacity] = isset($when['starts_on'], $when['ends_on'])
            ? AssignEntries::time($project, $when['starts_on'], $when['ends_on'], $when['testers'] ?? [])
            : [0, 0];

        return new SelectionCount(
            \count($cases),
            $entries,
            $known,
            $seconds,
            $days,
            $capacity,
            array_map(static fn(array $r): RefusedSelection => new RefusedSelection(...$r), \array_slice($chosen->refused, 0, 200)),
            \count($chosen->refused),
            \count($chosen->usual(null === $cycle ? [] : array_values(array_unique(array_column($there, 'case'))))),
            array_map(
                static fn(\stdClass $c): SelectedCase => new SelectedCase($c->id, $c->key, $c->title, $c->table_id),
                array_values(array_filter(\array_slice($cases, 0, 2000), static fn(\stdClass $c): bool => null !== $c->table_id)),
            ),
            (object) array_map(
                static fn(array $rows): array => array_map(static fn(array $r): Named => new Named(...$r), $rows),
                $chosen->tableRows(),
            ),
        );
    }

    /**
     * @param  array<string, mixed>  $picks as {@see EntrySelection} takes them, and `usual`: with the cases' usual conditions
     */
    public function __invoke(Cycle $cycle, User $user, array $picks): EntryAddition
    {
        $cycle = self::open($cycle);
        if (self::isRunning($cycle)) {
            throw new Conflict('adding', 'Entries are being added right now. Wait until that is done, or stop it.');
        }
        $project = Project::query()->findOrFail($cycle->project_id);
        $count = $this->count($project, $user, $picks, $cycle);
        $there = DB::table('entries')->where('cycle_id', $cycle->id)->count();
        if (0 === $count->entries) {
            throw ValidationException::withMessages([
                'picks' => $count->there > 0 ? 'All of these are in the cycle already.' : 'Nothing that can be walked is picked.',
            ]);
        }
        if ($there + $count->entries > self::MOST) {
            throw ValidationException::withMessages([
                'picks' => \sprintf(
                    'That would be %s entries; a cycle holds at most %s. Nothing was added.',
                    number_format($there + $count->entries),
                    number_format(self::MOST),
                ),
            ]);
        }
        $addition = EntryAddition::query()
            ->create([
                'project_id' => $cycle->project_id,
                'cycle_id' => $cycle->id,
                'actor_id' => $user->id,
                'state' => 'running',
                'picks' => $picks,
                'total' => $count->entries,
                'created_at' => Carbon::now(),
            ])
            ->refresh();
        if ($count->entries > self::AT_ONCE) {
            RunAddition::dispatch($addition->id)->afterCommit();

            return $addition;
        }
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
                if ('running' !== $now->state) {
                    return false;
                }
                DB::table('entries')->insert($rows);
                $addition->done += \count($rows);
                $now->update(['done' => $addition->done]);

                return true;
            });
            if (!$going) {
                $this->takeBack($addition, 'cancelled');

                return;
            }
        }
        DB::transaction(function () use ($addition, $cycle): void {
            $this->finish($addition->refresh(), $cycle);
        });
    }

    public static function isRunning(Cycle $cycle): bool
    {
        return DB::table('entry_additions')
            ->where('cycle_id', $cycle->id)
            ->whereIn('state', ['running', 'stopping'])
            ->exists();
    }

    /**
     * Asks a running addition to stop.
     */
    public function cancel(EntryAddition $addition): EntryAddition
    {
        if (
            1 !==
            EntryAddition::query()
                ->whereKey($addition->id)
                ->where('state', 'running')
                ->update(['state' => 'stopping'])
        ) {
            throw new Conflict('not-running', 'It is not running any more.');
        }

        return $addition->refresh();
    }

    public function takeBack(EntryAddition $addition, string $state, string $problem = ''): void
    {
        DB::transaction(function () use ($addition, $state, $problem): void {
            DB::table('entries')->where('addition_id', $addition->id)->delete();
            $addition->refresh()->update(['state' => $state, 'problem' => $problem, 'done' => 0]);
            ($this->log)(Cycle::query()->findOrFail($addition->cycle_id), null, 'Adding entries was stopped; none was added');
        });
    }

    /**
     * @throws Conflict when nothing may change in it any more
     */
    public static function open(Cycle $cycle): Cycle
    {
        $cycle = Cycle::query()->lockForUpdate()->findOrFail($cycle->id);
        if (!CycleState::from($cycle->state)->isOpen()) {
            throw new Conflict('cycle-closed', "“{$cycle->name}” is {$cycle->state}. Reopen it to change it.");
        }

        return $cycle;
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
        $addition->update(['state' => 'done', 'done' => $addition->total, 'facts' => ['conditions' => $conditions]]);
        $user = User::query()->find($addition->actor_id);
        ($this->log)(
            $cycle,
            $user,
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
        $have = ReadCycle::conditions($cycle->id);
        try {
            Conditions::of([...$have, ...ReadCycle::asConditions($wanted)]);
        } catch (LoopRefused) {
            $kept = [];
            foreach ($wanted as $one) {
                try {
                    Conditions::of([...$have, ...ReadCycle::asConditions([...$kept, $one])]);
                    $kept[] = $one;
                } catch (LoopRefused) {
                }
            }
            $wanted = $kept;
        }
        foreach (array_chunk($wanted, 1000) as $some) {
            DB::table('entry_conditions')->insert(
                array_map(
                    static fn(object $c): array => ['entry_id' => $c->entry_id, 'needs_id' => $c->needs_id, 'kind' => $c->kind],
                    $some,
                ),
            );
        }

        return \count($wanted);
    }

    /**
     * @return array<string, array{case: string}> entries that the cycle has, by what makes them the same
     */
    private function there(Cycle $cycle): array
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
