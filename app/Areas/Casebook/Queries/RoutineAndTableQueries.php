<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Data\ColumnLine;
use LucidStep\App\Areas\Casebook\Data\RoutineDetail;
use LucidStep\App\Areas\Casebook\Data\RoutineLine;
use LucidStep\App\Areas\Casebook\Data\TableDetail;
use LucidStep\App\Areas\Casebook\Data\TableLine;
use LucidStep\App\Areas\Casebook\Data\TableRow;
use LucidStep\App\Areas\Casebook\Data\UseLine;
use LucidStep\App\Models\DataRow;
use LucidStep\App\Models\DataTable;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Routine;
use LucidStep\App\Models\SavedFilter;
use LucidStep\App\Models\Suite;
use LucidStep\Core\Data\Check;
use LucidStep\Core\Data\Parameter;

/**
 * Reads routines and data tables, and where they are used.
 */
final readonly class RoutineAndTableQueries
{
    /**
     * @return list<RoutineLine> by name
     */
    public function routines(Project $project, bool $binned = false): array
    {
        $found = Routine::query()
            ->where('project_id', $project->id)
            ->when($binned, static fn($q) => $q->whereNotNull('binned_at'), static fn($q) => $q->whereNull('binned_at'))
            ->with('version')
            ->orderByRaw('lower(name)')
            ->get();
        $steps = DB::table('steps')
            ->whereIn('routine_version_id', $found->pluck('version_id'))
            ->groupBy('routine_version_id')
            ->pluck(DB::raw('count(*) as n'), 'routine_version_id');
        $uses = DB::table('steps')
            ->join('cases', 'cases.version_id', '=', 'steps.case_version_id')
            ->whereNotNull('steps.routine_id')
            ->where('cases.project_id', $project->id)
            ->whereNull('cases.binned_at')
            ->groupBy('steps.routine_id')
            ->pluck(DB::raw('count(distinct cases.id) as n'), 'steps.routine_id');

        return array_values(
            $found
                ->map(fn(Routine $r): RoutineLine => $this->line($r, (int) ($steps[$r->version_id] ?? 0), (int) ($uses[$r->id] ?? 0)))
                ->all(),
        );
    }

    public function routine(Routine $routine, bool $mayWrite): RoutineDetail
    {
        $routine->load('version.steps');
        $core = $routine->version->toCore();
        $book = RoutineBook::with($routine->project_id, $core->uses());
        $inner = [];
        foreach ($core->uses() as $id) {
            $one = $book->find($id);
            if (null !== $one) {
                $inner[] = ResourceMapper::routine($one);
            }
        }
        $uses = $this->routineUses($routine);

        return new RoutineDetail(
            $this->line(
                $routine,
                $routine->version->steps->count(),
                \count(array_filter($uses, static fn(UseLine $u): bool => 'case' === $u->kind)),
            ),
            $routine->version->number,
            ResourceMapper::steps($core->steps),
            $inner,
            $uses,
            // Names that are no parameter may come from the data table of a case; whether they do is told at the case.
            ResourceMapper::problems(
                array_values(array_filter((new Check($book, []))->steps($core->steps), static fn($p): bool => 'warning' === $p->severity)),
            ),
            $mayWrite,
        );
    }

    /**
     * @return list<UseLine> cases by key, then routines by name
     */
    public function routineUses(Routine $routine): array
    {
        $uses = [];
        foreach (
            DB::table('steps')
                ->join('cases', 'cases.version_id', '=', 'steps.case_version_id')
                ->where('steps.routine_id', $routine->id)
                ->whereNull('cases.binned_at')
                ->groupBy('cases.id', 'cases.key', 'cases.title', 'cases.number')
                ->orderBy('cases.number')
                ->selectRaw("cases.id, cases.key, cases.title, string_agg(steps.position::text, ', ' order by steps.position) as at")
                ->get()
            as $row
        ) {
            $uses[] = new UseLine('case', $row->id, $row->key, $row->title, $row->at);
        }
        foreach (
            DB::table('steps')
                ->join('routines', 'routines.version_id', '=', 'steps.routine_version_id')
                ->where('steps.routine_id', $routine->id)
                ->whereNull('routines.binned_at')
                ->groupBy('routines.id', 'routines.name')
                ->orderBy('routines.name')
                ->selectRaw("routines.id, routines.name, string_agg(steps.position::text, ', ' order by steps.position) as at")
                ->get()
            as $row
        ) {
            $uses[] = new UseLine('routine', $row->id, '', $row->name, $row->at);
        }

        return [...$uses, ...$this->filtersWith($routine->project_id, 'routine', $routine->id)];
    }

    /**
     * @return list<TableLine> by name
     */
    public function tables(Project $project, bool $binned = false): array
    {
        $found = DataTable::query()
            ->where('project_id', $project->id)
            ->when($binned, static fn($q) => $q->whereNotNull('binned_at'), static fn($q) => $q->whereNull('binned_at'))
            ->orderByRaw('lower(name)')
            ->get();
        $rows = DB::table('data_rows')
            ->whereIn('table_id', $found->pluck('id'))
            ->groupBy('table_id')
            ->pluck(DB::raw('count(*) as n'), 'table_id');
        $uses = DB::table('cases')
            ->where('project_id', $project->id)
            ->whereNotNull('table_id')
            ->whereNull('binned_at')
            ->groupBy('table_id')
            ->pluck(DB::raw('count(*) as n'), 'table_id');

        return array_values(
            $found->map(fn(DataTable $t): TableLine => $this->tableLine($t, (int) ($rows[$t->id] ?? 0), (int) ($uses[$t->id] ?? 0)))->all(),
        );
    }

    public function table(DataTable $table, bool $mayWrite): TableDetail
    {
        $table->load('rows');
        $uses = $this->tableUses($table);

        return new TableDetail(
            $this->tableLine(
                $table,
                $table->rows->count(),
                \count(array_filter($uses, static fn(UseLine $u): bool => 'case' === $u->kind)),
            ),
            array_values(
                $table->rows
                    ->map(
                        static fn(DataRow $r): TableRow => new TableRow(
                            $r->id,
                            array_map(
                                static fn(array $c, int $i): ?string => $c['secret'] && '' !== ($r->cells[$i] ?? '')
                                    ? null
                                    : $r->cells[$i] ?? '',
                                $table->columns,
                                array_keys($table->columns),
                            ),
                        ),
                    )
                    ->all(),
            ),
            $uses,
            $mayWrite,
        );
    }

    /**
     * @return list<UseLine>
     */
    public function tableUses(DataTable $table): array
    {
        $uses = [];
        foreach (
            DB::table('cases')
                ->where('table_id', $table->id)
                ->whereNull('binned_at')
                ->orderBy('number')
                ->get(['id', 'key', 'title'])
            as $row
        ) {
            $uses[] = new UseLine('case', $row->id, $row->key, $row->title, '');
        }

        return [...$uses, ...$this->filtersWith($table->project_id, 'table', $table->id)];
    }

    /**
     * @return list<UseLine>
     */
    public function filtersWith(string $project, string $name, string $id): array
    {
        $uses = [];
        foreach (
            Suite::query()
                ->where('project_id', $project)
                ->whereNull('binned_at')
                ->whereRaw('filter ->> ? like ?', [$name, "%{$id}%"])
                ->get()
            as $suite
        ) {
            $uses[] = new UseLine('suite', $suite->id, '', $suite->name, '');
        }
        foreach (
            SavedFilter::query()
                ->where('project_id', $project)
                ->where('subject', 'case')
                ->where('shared', true)
                ->whereRaw('filter ->> ? like ?', [$name, "%{$id}%"])
                ->get()
            as $filter
        ) {
            $uses[] = new UseLine('filter', $filter->id, '', $filter->name, '');
        }

        return $uses;
    }

    private function line(Routine $r, int $steps, int $uses): RoutineLine
    {
        $parameters = array_map(static fn(array $p): Parameter => new Parameter($p['name'], $p['default']), $r->version->parameters);

        return new RoutineLine(
            $r->id,
            $r->name,
            $r->description,
            ResourceMapper::parameters($parameters),
            $steps,
            $uses,
            $r->revision,
            $r->updated_at->toIso8601ZuluString(),
            $r->binned_at?->toIso8601ZuluString(),
        );
    }

    private function tableLine(DataTable $t, int $rows, int $uses): TableLine
    {
        return new TableLine(
            $t->id,
            $t->name,
            array_map(static fn(array $c): ColumnLine => new ColumnLine($c['name'], $c['secret']), $t->columns),
            $rows,
            $uses,
            $t->revision,
            $t->updated_at->toIso8601ZuluString(),
            $t->binned_at?->toIso8601ZuluString(),
        );
    }
}
