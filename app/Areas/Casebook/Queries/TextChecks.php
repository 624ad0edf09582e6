<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\DataTable;
use LucidStep\Core\Casebook\CaseText;

/**
 * Why versions of cases cannot be walked. What was found is kept until a routine or a table that it depends on is changed, which the
 * database sees to; what is not known yet is found when it is asked for.
 */
final readonly class TextChecks
{
    private const AT_ONCE = 500;

    public function __construct(private CheckCase $check) {}

    /**
     * @param  list<string>  $versions of cases of the project
     *
     * @return array<string, non-empty-list<string>> a sentence for each error, by version; what has none is not in it
     */
    public function errors(string $project, array $versions): array
    {
        if ([] === $versions) {
            return [];
        }
        $ids = '{' . implode(',', $versions) . '}';
        $known = DB::select('select case_version_id as id, errors from text_checks where case_version_id = any(?::uuid[])', [$ids]);
        $errors = [];
        foreach ($known as $row) {
            if ('[]' !== $row->errors) {
                $errors[$row->id] = json_decode($row->errors, true);
            }
        }
        $unknown = array_values(array_diff($versions, array_column($known, 'id')));

        return [...$errors, ...[] === $unknown ? [] : $this->find($project, $unknown)];
    }

    /**
     * Finds what is not known yet of the cases of a project, so that it can be asked for in a query.
     */
    public function complete(string $project): void
    {
        $unknown = DB::table('cases')
            ->where('project_id', $project)
            ->whereNotExists(static fn($q) => $q->from('text_checks')->whereColumn('case_version_id', 'cases.version_id'))
            ->pluck('version_id')
            ->all();
        $this->find($project, array_values($unknown));
    }

    /**
     * @param  list<string>  $versions
     *
     * @return array<string, non-empty-list<string>>
     */
    private function find(string $project, array $versions): array
    {
        return DB::transaction(function () use ($project, $versions): array {
            // What is read here is not changed by another until what was found is written.
            DB::select("select pg_advisory_xact_lock(hashtextextended('text_checks ' || ?, 0))", [$project]);
            $errors = [];
            $asking = $this->asking($versions);
            $this->keep(array_fill_keys(array_values(array_diff($versions, $asking)), []));
            $tables = [] === $asking ? [] : DataTable::query()->where('project_id', $project)->whereNull('binned_at')->get()->keyBy('id');
            foreach (array_chunk($asking, self::AT_ONCE) as $some) {
                $found = [];
                $texts = CaseVersion::query()
                    ->whereIn('id', $some)
                    ->with('steps')
                    ->get()
                    ->mapWithKeys(static fn(CaseVersion $v): array => [$v->id => $v->text()])
                    ->all();
                $uses = array_merge([], ...array_values(array_map(static fn(CaseText $t): array => CheckCase::uses($t->steps), $texts)));
                $routines = RoutineBook::with($project, $uses);
                foreach ($texts as $id => $text) {
                    $found[$id] = $this->check->errors($project, $text, $routines, $tables[$text->table] ?? null);
                }
                $this->keep($found);
                $errors = [...$errors, ...array_filter($found, static fn(array $e): bool => [] !== $e)];
            }

            return $errors;
        });
    }

    /**
     * Those in which anything could be wrong: with a place for a value, a routine or a table.
     *
     * @param  list<string>  $versions
     *
     * @return list<string>
     */
    private function asking(array $versions): array
    {
        $rows = DB::select(
            <<<'SQL'
            select v.id from unnest(?::uuid[]) as wanted (id) join case_versions v on v.id = wanted.id left join lateral (
                select true as asks from steps where case_version_id = v.id and (routine_id is not null
                    or action like '%{{%' or data like '%{{%' or expected like '%{{%') limit 1
            ) s on true
            where v.table_id is not null or s.asks
            SQL
            ,
            ['{' . implode(',', $versions) . '}'],
        );

        return array_column($rows, 'id');
    }

    /**
     * @param  array<string, list<string>>  $found
     */
    private function keep(array $found): void
    {
        foreach (array_chunk($found, 5000, true) as $some) {
            DB::table('text_checks')->insertOrIgnore(
                array_map(
                    static fn(string $id, array $errors): array => [
                        'case_version_id' => $id,
                        'errors' => json_encode($errors, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE),
                    ],
                    array_keys($some),
                    $some,
                ),
            );
        }
    }
}
