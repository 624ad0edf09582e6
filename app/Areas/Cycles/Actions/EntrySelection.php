<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Areas\Casebook\Queries\FolderPaths;
use LucidStep\App\Areas\Casebook\Queries\TextChecks;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Project;
use LucidStep\Core\Casebook\Review;
use LucidStep\Core\Planning\NotPlannable;
use LucidStep\Core\Verdict\Policies;

/**
 * What is picked for a cycle: cases out of folders, suites, a filter or an earlier cycle, × configurations × data rows.
 */
final class EntrySelection
{
    /** @var list<\stdClass>|null */
    private ?array $cases = null;

    /** @var list<array{key: string, title: string, why: string}> */
    public array $refused = [];

    /** @var array<string, list<array{id: string, name: string}>> rows by table */
    private array $rows = [];

    /**
     * @param  array<string, mixed>  $asked `filter` (as in the casebook), `folders`, `suites`, `cases` (ids), `earlier`
     *     {cycle, shows}, `configurations` (ids), `rows` {case: [ids]}, `all_rows`
     */
    public function __construct(private readonly Project $project, private readonly array $asked, private readonly ?string $me = null) {}

    /**
     * The cases that can be walked, in casebook order; those that cannot are in {@see $refused} with why.
     *
     * @return list<\stdClass> id, key, title, version, table_id, times, estimate_seconds, steps_count, priority
     */
    public function cases(): array
    {
        if (null !== $this->cases) {
            return $this->cases;
        }
        $approvedOnly = Policies::fromArray($this->project->policies)->onlyApprovedCases;
        $found = $this->found()
            ->leftJoin('folders', 'folders.id', '=', 'cases.folder_id')
            ->orderByRaw('folders.position nulls first, folders.name, cases.position, cases.number')
            ->get([
                'cases.id',
                'cases.key',
                'cases.title',
                'cases.state',
                'cases.version_id',
                'cases.approved_version_id',
                'cases.table_id',
                'cases.walk_times',
                'cases.estimate_seconds',
                'cases.steps_count',
                'cases.is_template',
                'cases.priority',
            ]);
        $this->cases = [];
        foreach ($found as $case) {
            $why = NotPlannable::asItIs(
                $case->state,
                false,
                (bool) $case->is_template,
                $case->steps_count,
                $approvedOnly,
                null !== $case->approved_version_id,
            );
            if (null !== $why) {
                $this->refused[] = ['key' => $case->key, 'title' => $case->title, 'why' => $why[0]];

                continue;
            }
            $case->version = Review::walked($case->version_id, $case->approved_version_id, $approvedOnly);
            $this->cases[] = $case;
        }
        $this->tables();
        $errors = app(TextChecks::class)->errors($this->project->id, array_column($this->cases ?? [], 'version'));
        $this->cases = array_values(
            array_filter($this->cases ?? [], fn(\stdClass $case): bool => $this->isWalkable($case, $errors[$case->version] ?? [])),
        );

        return $this->cases;
    }

    /**
     * @param  list<string>  $errors in its text
     */
    private function isWalkable(\stdClass $case, array $errors): bool
    {
        $rows = $this->rowsOf($case);
        $why = NotPlannable::asWalked(
            $errors,
            $case->steps_count,
            null === $rows ? null : \count($rows),
            \count($this->rows[$case->table_id] ?? []),
        );
        if (null !== $why) {
            $this->refused[] = ['key' => $case->key, 'title' => $case->title, 'why' => $why[0]];
        }

        return null === $why;
    }

    /**
     * Every entry that the picks give, in order: by case, then by configuration.
     *
     * @return \Generator<int, array{case: \stdClass, configuration: ?string, rows: ?list<string>, rounds: int}>
     */
    public function entries(): \Generator
    {
        $configurations = $this->configurations();
        foreach ($this->cases() as $case) {
            $rows = $this->rowsOf($case);
            foreach ($configurations as $configuration) {
                yield ['case' => $case, 'configuration' => $configuration, 'rows' => $rows, 'rounds' => max(1, \count($rows ?? []))];
            }
        }
    }

    /**
     * The rows that a case is walked with: those chosen, else all of its table.
     *
     * @return ?list<string> null for a case without a table
     */
    private function rowsOf(\stdClass $case): ?array
    {
        if (null === $case->table_id) {
            return null;
        }
        $all = array_column($this->rows[$case->table_id] ?? [], 'id');
        $chosen = $this->asked['rows'][$case->id] ?? null;

        return \is_array($chosen) ? array_values(array_intersect($all, $chosen)) : $all;
    }

    /**
     * The tables of the cases found, with their rows by a name people know them by.
     *
     * @return array<string, list<array{id: string, name: string}>>
     */
    public function tableRows(): array
    {
        $this->cases();

        return $this->rows;
    }

    /**
     * @return non-empty-list<?string>
     */
    private function configurations(): array
    {
        $asked = array_values(array_unique(array_filter((array) ($this->asked['configurations'] ?? []), is_string(...))));
        $known = DB::table('configurations')
            ->where('project_id', $this->project->id)
            ->whereIn('id', $asked)
            ->orderBy('position')
            ->pluck('id')
            ->all();
        if (\count($known) < \count($asked)) {
            throw ValidationException::withMessages(['picks.configurations' => 'A configuration is not there any more. Choose again.']);
        }

        return [] === $known ? [null] : array_values($known);
    }

    private function tables(): void
    {
        $ids = array_values(array_unique(array_filter(array_column($this->cases ?? [], 'table_id'))));
        if ([] === $ids) {
            return;
        }
        $columns = DB::table('data_tables')
            ->whereIn('id', $ids)
            ->pluck('columns', 'id')
            ->map(static fn(string $c): array => json_decode($c, true));
        foreach (
            DB::table('data_rows')
                ->whereIn('table_id', $ids)
                ->orderBy('position')
                ->get(['id', 'table_id', 'cells', 'position'])
            as $row
        ) {
            $cells = json_decode($row->cells, true);
            $shown = array_filter(
                $cells,
                static fn(int $i): bool => !($columns[$row->table_id][$i]['secret'] ?? false),
                \ARRAY_FILTER_USE_KEY,
            );
            $this->rows[$row->table_id][] = [
                'id' => $row->id,
                'name' => mb_strimwidth(implode(', ', \array_slice($shown, 0, 3)), 0, 80, '…') ?: "Row {$row->position}",
            ];
        }
    }

    private function found(): Builder
    {
        $any = [];
        $uuids = static fn(mixed $ids): array => array_values(
            array_filter((array) $ids, static fn(mixed $id): bool => \is_string($id) && Str::isUuid($id)),
        );
        $ids = $uuids($this->asked['cases'] ?? []);
        if ([] !== $ids) {
            $any[] = static fn(Builder $q) => $q->whereIn('cases.id', $ids);
        }
        $folders = $uuids($this->asked['folders'] ?? []);
        if ([] !== $folders) {
            $tree = new FolderPaths($this->project);
            $below = array_merge([], ...array_map($tree->below(...), $folders));
            $any[] = static fn(Builder $q) => $q->whereIn('cases.folder_id', $below);
        }
        $suites = $uuids($this->asked['suites'] ?? []);
        if ([] !== $suites) {
            $own = DB::table('suites')->where('project_id', $this->project->id)->whereIn('id', $suites)->pluck('id');
            $any[] = static fn(Builder $q) => $q->whereIn(
                'cases.id',
                DB::table('suite_cases')->whereIn('suite_id', $own)->select('case_id'),
            );
        }
        if (\is_array($this->asked['filter'] ?? null)) {
            $filter = CaseFilter::from($this->project, $this->asked['filter'], $this->me)->query()->toBase()->select('cases.id');
            // Found once and then looked up: as a join, its size is guessed, and guessed wrong where the table has just been filled.
            $any[] = static fn(Builder $q) => $q->whereRaw("cases.id = any(array({$filter->toSql()}))", $filter->getBindings());
        }
        $earlier = $this->asked['earlier'] ?? null;
        if (\is_array($earlier) && \is_string($earlier['cycle'] ?? null)) {
            $cycle =
                Cycle::query()
                    ->where('project_id', $this->project->id)
                    ->where(Str::isUuid($earlier['cycle']) ? 'id' : 'key', $earlier['cycle'])
                    ->first() ?? throw ValidationException::withMessages(['picks.earlier' => 'There is no such cycle.']);
            $shows = array_values(array_filter((array) ($earlier['display_state'] ?? []), is_string(...))) ?: ['fail', 'blocked', 'retest'];
            $any[] = static fn(Builder $q) => $q->whereIn(
                'cases.id',
                DB::table('entries')->where('cycle_id', $cycle->id)->whereIn('display_state', $shows)->select('case_id'),
            );
        }
        $query = DB::table('cases')->where('cases.project_id', $this->project->id)->whereNull('cases.binned_at');

        return [] === $any
            ? $query->whereRaw('false')
            : $query->where(static function (Builder $q) use ($any): void {
                foreach ($any as $one) {
                    $q->orWhere($one);
                }
            });
    }

    /**
     * Conditions that the picked cases usually have on each other or on cases already there.
     *
     * @param  list<string>  $also cases of the cycle's other entries
     *
     * @return Collection<int, \stdClass> case_id, needs_id, kind
     */
    public function usual(array $also = []): Collection
    {
        $ids = array_column($this->cases(), 'id');

        return DB::table('case_conditions')
            ->whereIn('case_id', $ids)
            ->whereIn('needs_id', [...$ids, ...$also])
            ->get();
    }
}
