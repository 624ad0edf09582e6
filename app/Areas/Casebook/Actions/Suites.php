<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Data\SuiteDetail;
use LucidStep\App\Areas\Casebook\Data\SuiteLine;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Areas\Casebook\Queries\ListCases;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Suite;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\Core\Casebook\CaseState;

/**
 * Suites: hand-picked, by a rule that stays live, or by requirement. A live one says what it gained and lost since
 * it was last accepted; only accepting changes what it is.
 */
final readonly class Suites
{
    public function __construct(private PublishChange $announce, private ListCases $list) {}

    /**
     * @return list<SuiteLine>
     */
    public function all(Project $project): array
    {
        return $this->lines(
            $project,
            array_values(
                Suite::query()->where('project_id', $project->id)->whereNull('binned_at')->orderByRaw('lower(name)')->get()->all(),
            ),
        );
    }

    public function detail(Project $project, Suite $suite, bool $mayAccept): SuiteDetail
    {
        $gained = $lost = [];
        if ('picked' !== $suite->kind) {
            $accepted = DB::table('suite_cases')->where('suite_id', $suite->id)->select('case_id');
            $gained = $this->list->lines(
                $project->id,
                $this->live($project, $suite)->whereNotIn('cases.id', $accepted)->orderBy('number'),
                200,
            );
            $lost = $this->list->lines(
                $project->id,
                TestCase::query()
                    ->whereIn('cases.id', $accepted)
                    ->whereNotIn('cases.id', $this->live($project, $suite)->select('cases.id'))
                    ->orderBy('number'),
                200,
            );
        }

        return new SuiteDetail($this->lines($project, [$suite])[0], $gained, $lost, $mayAccept);
    }

    /**
     * @param  array<string, mixed>  $input name, kind, filter, requirement_id, cases; to change name or rule, the state that the person
     *     saw as well ({@see Seen})
     */
    public function save(Project $project, ?Suite $suite, array $input): Suite
    {
        $name = trim((string) ($input['name'] ?? $suite?->name));
        SaveRoutine::refuseTaken('suites', $project->id, $name, $suite?->id);
        $kind = $suite->kind ?? (string) $input['kind'];
        $filter = CaseFilter::from($project, \is_array($input['filter'] ?? null) ? $input['filter'] : (array) ($suite->filter ?? []))
            ->asked;
        unset($filter['suite'], $filter['ids'], $filter['bin']);
        $requirement = $input['requirement_id'] ?? $suite?->requirement_id;
        if ('rule' === $kind && [] === $filter) {
            throw ValidationException::withMessages([
                'filter' => 'A rule without any condition would hold every case. Filter the list first.',
            ]);
        }
        if ('requirement' === $kind && !DB::table('requirements')->where('project_id', $project->id)->where('id', $requirement)->exists()) {
            throw ValidationException::withMessages(['requirement_id' => 'Choose a requirement.']);
        }
        $values = [
            'name' => $name,
            'filter' => 'rule' === $kind ? $filter : [],
            'requirement_id' => 'requirement' === $kind ? $requirement : null,
        ];
        $fresh = null === $suite;
        if (null !== $suite) {
            $suite = Suite::query()->lockForUpdate()->findOrFail($suite->id);
            if ([$values['name'], (object) $values['filter'], $values['requirement_id']] != self::asSeen($suite)) {
                Seen::check($input['seen'] ?? null, self::asSeen($suite), 'this suite');
            }
        }
        $suite ??= Suite::query()
            ->create(['project_id' => $project->id, 'kind' => $kind, ...$values])
            ->refresh();
        $suite->update($values);
        if ('picked' === $kind) {
            $this->pick($project, $suite, $input['add'] ?? [], $input['remove'] ?? []);
        } elseif ($fresh) {
            $this->accept($project, $suite);
        }
        ($this->announce)($project->id, 'case', $suite->id);

        return $suite;
    }

    /**
     * @return array{string, object, ?string} name, rule and requirement
     */
    private static function asSeen(Suite $suite): array
    {
        return [$suite->name, (object) $suite->filter, $suite->requirement_id];
    }

    /**
     * What the suite is live becomes what it is.
     */
    public function accept(Project $project, Suite $suite): void
    {
        DB::table('suite_cases')->where('suite_id', $suite->id)->delete();
        DB::insert(
            'insert into suite_cases (suite_id, case_id, position) select ?, id, row_number() over (order by number) from (' .
                ($query = $this->live($project, $suite)->select('cases.id', 'cases.number'))->toSql() .
                ') live',
            [$suite->id, ...$query->getBindings()],
        );
        $suite->update(['accepted_at' => Carbon::now()]);
        ($this->announce)($project->id, 'case', $suite->id);
    }

    public function bin(Suite $suite): void
    {
        $suite->update(['binned_at' => Carbon::now()]);
        ($this->announce)($suite->project_id, 'case', $suite->id);
    }

    public function restore(Suite $suite): void
    {
        SaveRoutine::refuseTaken('suites', $suite->project_id, $suite->name, $suite->id);
        $suite->update(['binned_at' => null]);
        ($this->announce)($suite->project_id, 'case', $suite->id);
    }

    /**
     * Counts all of them in two queries. A binned case has left its suites; nobody is asked about it.
     *
     * @param  list<Suite>  $suites
     *
     * @return list<SuiteLine>
     */
    private function lines(Project $project, array $suites): array
    {
        $ids = array_map(static fn(Suite $s): string => $s->id, $suites);
        $accepted = DB::table('suite_cases')
            ->join('cases', 'cases.id', '=', 'suite_cases.case_id')
            ->whereIn('suite_id', $ids)
            ->whereNull('cases.binned_at')
            ->groupBy('suite_id')
            ->pluck(DB::raw('count(*) as n'), 'suite_id');
        $counts = null;
        foreach ($suites as $suite) {
            if ('picked' !== $suite->kind) {
                $one = $this->live($project, $suite)
                    ->toBase()
                    ->leftJoin(
                        'suite_cases',
                        static fn($j) => $j->on('suite_cases.case_id', '=', 'cases.id')->where('suite_cases.suite_id', $suite->id),
                    )
                    ->selectRaw('?::uuid as id, count(*) as live, count(suite_cases.case_id) as kept', [$suite->id]);
                $counts = null === $counts ? $one : $counts->unionAll($one);
            }
        }
        $live = null === $counts ? collect() : $counts->get()->keyBy('id');

        return array_map(static function (Suite $s) use ($accepted, $live): SuiteLine {
            $cases = (int) ($accepted[$s->id] ?? 0);
            $now = $live->get($s->id);

            return new SuiteLine(
                $s->id,
                $s->name,
                $s->kind,
                (object) $s->filter,
                $s->requirement_id,
                $cases,
                null === $now ? 0 : (int) $now->live - (int) $now->kept,
                null === $now ? 0 : $cases - (int) $now->kept,
                $s->accepted_at?->toIso8601ZuluString(),
                Seen::of(self::asSeen($s)),
            );
        }, $suites);
    }

    /**
     * @return Builder<TestCase>
     */
    private function live(Project $project, Suite $suite): Builder
    {
        if ('requirement' === $suite->kind) {
            return CaseFilter::from($project, [])
                ->query()
                ->where('cases.state', '<>', CaseState::Retired)
                ->whereRaw(
                    'cases.id in (with recursive down as (select id from requirements where id = ? union select r.id from ' .
                        'requirements r join down on r.parent_id = down.id) select case_id from case_requirements join down on ' .
                        'down.id = requirement_id)',
                    [$suite->requirement_id],
                );
        }

        return CaseFilter::from($project, $suite->filter)->query();
    }

    /**
     * @param  list<string>  $add
     * @param  list<string>  $remove
     */
    private function pick(Project $project, Suite $suite, array $add, array $remove): void
    {
        $position = (int) DB::table('suite_cases')->where('suite_id', $suite->id)->max('position');
        $known = array_map(
            strval(...),
            DB::table('cases')->where('project_id', $project->id)->whereNull('binned_at')->whereIn('id', $add)->pluck('id')->all(),
        );
        foreach (array_values(array_intersect($add, $known)) as $i => $case) {
            DB::table('suite_cases')->insertOrIgnore(['suite_id' => $suite->id, 'case_id' => $case, 'position' => $position + $i + 1]);
        }
        DB::table('suite_cases')->where('suite_id', $suite->id)->whereIn('case_id', $remove)->delete();
    }
}
