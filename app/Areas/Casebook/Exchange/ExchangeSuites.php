<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Areas\Casebook\Queries\FolderPaths;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Suite;

/**
 * Suites as a casebook holds them: with names in place of ids, so that a rule means the same elsewhere. In a rule a list
 * holds such names, a text is as the filter has it.
 */
final readonly class ExchangeSuites
{
    /** What is named in a rule, with the table and the column of its names. */
    private const NAMED = [
        'owner' => ['users', 'email'],
        'table' => ['data_tables', 'name'],
        'routine' => ['routines', 'name'],
        'requirement' => ['requirements', 'key'],
    ];

    /** Words that stand in a rule in the place of ids. */
    private const WORDS = ['none', 'any', 'me'];

    /**
     * @return list<array<string, mixed>> name, kind, filter, requirement, cases (keys)
     */
    public function out(Project $project): array
    {
        $folders = new FolderPaths($project);
        $cases = DB::table('suite_cases')
            ->join('cases', 'cases.id', '=', 'case_id')
            ->where('cases.project_id', $project->id)
            ->whereNull('cases.binned_at')
            ->orderBy('suite_cases.position')
            ->get(['suite_id', 'cases.key'])
            ->groupBy('suite_id');
        $requirements = DB::table('requirements')->where('project_id', $project->id)->pluck('key', 'id');
        $suites = [];
        foreach (Suite::query()->where('project_id', $project->id)->whereNull('binned_at')->orderBy('name')->get() as $suite) {
            $filter = [];
            foreach ($suite->filter as $name => $value) {
                [$name, $value] = $this->named($project, $folders, (string) $name, (string) $value);
                $filter[$name] = $value;
            }
            $suites[] = [
                'name' => $suite->name,
                'kind' => $suite->kind,
                'filter' => (object) $filter,
                'requirement' => $requirements[$suite->requirement_id ?? ''] ?? null,
                'cases' => $cases->get($suite->id)?->pluck('key')->all() ?? [],
            ];
        }

        return $suites;
    }

    /**
     * @param  list<array<string, mixed>>  $suites as {@see out()} gives them; one whose name is there is left as it is
     * @param  array<string, string>  $cases ids by the keys that the file has
     * @param  array<string, string>  $requirements ids by the keys that the file has
     *
     * @return array{list<string>, list<string>} ids of those made, and a sentence for each that is left out
     */
    public function bring(Project $project, array $suites, array $cases, array $requirements): array
    {
        $folders = new FolderPaths($project);
        $there = DB::table('suites')->where('project_id', $project->id)->whereNull('binned_at')->pluck('name')->all();
        $there = array_map(mb_strtolower(...), $there);
        $made = $left = [];
        foreach ($suites as $suite) {
            $name = mb_substr(ImportRows::name($suite), 0, 120);
            $kind = \in_array($suite['kind'] ?? '', ['picked', 'rule', 'requirement'], true) ? $suite['kind'] : 'picked';
            if ('' === $name || \in_array(mb_strtolower($name), $there, true)) {
                continue;
            }
            $filter = $missing = [];
            foreach ('rule' === $kind ? (array) ($suite['filter'] ?? []) : [] as $criterion => $value) {
                [$criterion, $value, $unknown] = $this->here($project, $folders, (string) $criterion, $value, $requirements);
                $filter[$criterion] = $value;
                array_push($missing, ...$unknown);
            }
            $filter = CaseFilter::from($project, $filter)->asked;
            unset($filter['suite'], $filter['ids'], $filter['bin']);
            $key = \is_string($suite['requirement'] ?? null) ? $suite['requirement'] : '';
            $requirement = 'requirement' === $kind ? $requirements[$key] ?? null : null;
            if ('requirement' === $kind && null === $requirement) {
                $missing[] = "the requirement {$key}";
            }
            if ([] !== $missing || ('rule' === $kind && [] === $filter)) {
                $left[] =
                    "The suite \"{$name}\" is left out: " .
                    ([] === $missing ? 'its rule says nothing.' : implode(', ', $missing) . ' is not here.');

                continue;
            }
            $made[] = $this->make($project, $name, $kind, $filter, $requirement, $this->known($suite, $cases));
        }

        return [$made, $left];
    }

    /**
     * @param  array<string, string>  $filter
     * @param  list<string>  $cases
     */
    private function make(Project $project, string $name, string $kind, array $filter, ?string $requirement, array $cases): string
    {
        $suite = Suite::query()->create([
            'project_id' => $project->id,
            'name' => $name,
            'kind' => $kind,
            'filter' => $filter,
            'requirement_id' => $requirement,
            'accepted_at' => 'picked' === $kind ? null : Carbon::now(),
        ]);
        foreach (array_chunk($cases, 1000, true) as $some) {
            DB::table('suite_cases')->insert(
                array_map(
                    static fn(int $at, string $id): array => ['suite_id' => $suite->id, 'case_id' => $id, 'position' => $at + 1],
                    array_keys($some),
                    $some,
                ),
            );
        }

        return $suite->id;
    }

    /**
     * @param  array<string, mixed>  $suite
     * @param  array<string, string>  $cases
     *
     * @return list<string>
     */
    private function known(array $suite, array $cases): array
    {
        $keys = array_filter((array) ($suite['cases'] ?? []), is_string(...));

        return array_values(
            array_unique(array_filter(array_map(static fn(string $k): ?string => $cases[$k] ?? null, $keys), is_string(...))),
        );
    }

    /**
     * @return array{string, string|list<string>}
     */
    private function named(Project $project, FolderPaths $folders, string $criterion, string $value): array
    {
        if (str_starts_with($criterion, CaseFilter::FIELD)) {
            $field = DB::table('custom_fields')
                ->where('id', substr($criterion, \strlen(CaseFilter::FIELD)))
                ->value('name');

            return [CaseFilter::FIELD . $field, $value];
        }
        if ('folder' === $criterion) {
            return [$criterion, 'none' === $value ? $value : $folders->path($value)];
        }
        if (!isset(self::NAMED[$criterion]) || \in_array($value, self::WORDS, true)) {
            return [$criterion, $value];
        }
        [$table, $column] = self::NAMED[$criterion];
        $ids = explode(',', $value);
        $names = DB::table($table)
            ->whereIn('id', array_values(array_diff($ids, self::WORDS)))
            ->pluck($column, 'id')
            ->all();

        return [$criterion, array_map(static fn(string $id): string => (string) ($names[$id] ?? $id), $ids)];
    }

    /**
     * @param  array<string, string>  $requirements
     *
     * @return array{string, string, list<string>} the criterion as the filter has it, and what is not there
     */
    private function here(Project $project, FolderPaths $folders, string $criterion, mixed $value, array $requirements): array
    {
        if (str_starts_with($criterion, CaseFilter::FIELD)) {
            $name = substr($criterion, \strlen(CaseFilter::FIELD));
            $id = DB::table('custom_fields')
                ->where('project_id', $project->id)
                ->where('subject', 'case')
                ->whereRaw('lower(name) = lower(?)', [$name])
                ->value('id');

            return [CaseFilter::FIELD . $id, \is_string($value) ? $value : '', null === $id ? ["the field \"{$name}\""] : []];
        }
        if (!\is_array($value)) {
            return [$criterion, \is_scalar($value) ? (string) $value : '', []];
        }
        $names = array_values(array_filter($value, is_string(...)));
        if ('folder' === $criterion) {
            $id = $folders->find($names);

            return [$criterion, (string) $id, null === $id ? ['the folder "' . implode(' / ', $names) . '"'] : []];
        }
        $ids = $missing = [];
        foreach ($names as $name) {
            $id = \in_array($name, self::WORDS, true) ? $name : $this->id($project, $criterion, $name, $requirements);
            null === $id ? ($missing[] = "{$criterion} \"{$name}\"") : ($ids[] = $id);
        }

        return [$criterion, implode(',', $ids), $missing];
    }

    /**
     * @param  array<string, string>  $requirements
     */
    private function id(Project $project, string $criterion, string $name, array $requirements): ?string
    {
        $id = match ($criterion) {
            'requirement' => $requirements[$name] ?? null,
            'owner' => DB::table('users')
                ->join('memberships', 'user_id', '=', 'users.id')
                ->where('project_id', $project->id)
                ->whereRaw('lower(email) = lower(?)', [$name])
                ->value('users.id'),
            'table', 'routine' => DB::table(self::NAMED[$criterion][0])
                ->where('project_id', $project->id)
                ->whereNull('binned_at')
                ->whereRaw('lower(name) = lower(?)', [$name])
                ->value('id'),
            default => null,
        };

        return \is_string($id) ? $id : null;
    }
}
