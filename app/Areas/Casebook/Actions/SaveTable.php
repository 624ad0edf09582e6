<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Queries\RoutineAndTableQueries;
use LucidStep\App\Areas\Casebook\Queries\RoutineBook;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\DataRow;
use LucidStep\App\Models\DataTable;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Problems\InUse;
use LucidStep\App\Support\Problems\SavedMeanwhile;
use LucidStep\App\Support\Secrets\ProjectSecrets;
use LucidStep\Core\Data\Column;
use LucidStep\Core\Data\DataTable as CoreTable;
use LucidStep\Core\Data\SecretCells;
use LucidStep\Core\Data\Template;
use LucidStep\Core\Exchange\Unreadable;

/**
 * Makes, changes, bins and restores data tables.
 */
final readonly class SaveTable
{
    public function __construct(private PublishChange $announce, private RoutineAndTableQueries $shelf) {}

    /**
     * Rows with an id keep it, and with it the secret cells that come as null.
     *
     * @param  array{name: string, columns: list<array{name?: mixed, secret?: mixed}>, rows: list<array{id?: mixed, cells?: mixed}>}  $input
     *
     * @throws ValidationException with faults by `columns.<n>`, `rows.<n>` or `name`
     * @throws Conflict when a column is taken out that a case still asks for, or the table was saved meanwhile
     */
    public function save(Project $project, ?DataTable $table, array $input, ?int $revision): DataTable
    {
        $table = null === $table ? null : DataTable::query()->lockForUpdate()->with('rows')->findOrFail($table->id);
        if (null !== $table) {
            SavedMeanwhile::check($revision, $table->revision, 'this data table');
        }
        $name = trim($input['name']);
        SaveRoutine::refuseTaken('data_tables', $project->id, $name, $table?->id);
        $columns = array_map(
            static fn(array $c): Column => new Column(trim((string) ($c['name'] ?? '')), (bool) ($c['secret'] ?? false)),
            $input['columns'],
        );
        $old = $table?->rows->keyBy('id');
        $secret = SecretCells::of(
            $columns,
            array_map(static fn(array $c): Column => new Column($c['name'], $c['secret']), $table->columns ?? []),
        );
        $rows = $ids = [];
        foreach ($input['rows'] as $i => $row) {
            $before = null === $old || !\is_string($row['id'] ?? null) ? null : $old[$row['id']] ?? null;
            $clear = $before?->clear($table->columns ?? []) ?? [];
            $ids[] = $before->id ?? (string) Str::uuid7();
            $cells = [];
            foreach (array_values(\is_array($row['cells'] ?? null) ? $row['cells'] : []) as $at => $cell) {
                try {
                    $cells[] =
                        null === $cell && null !== $before
                            ? $secret->kept($at, $clear)
                            : str_replace("\r\n", "\n", \is_scalar($cell) ? (string) $cell : '');
                } catch (\DomainException $e) {
                    throw ValidationException::withMessages(['columns' => $e->getMessage()]);
                }
            }
            $rows[] = $cells;
        }
        try {
            $core = CoreTable::of($columns, $rows);
        } catch (Unreadable $e) {
            $errors = [];
            foreach ($e->errors as $error) {
                $errors[1 === $error->row && null !== $error->column ? 'columns' : "row {$error->row}"][] = $error->message;
            }
            throw ValidationException::withMessages($errors);
        }
        if (null !== $table) {
            $this->refuseMissing($table, $core->names());
        }
        $kept = array_map(static fn(Column $c): array => ['name' => $c->name, 'secret' => $c->secret], $columns);
        if (null === $table) {
            $table = DataTable::query()
                ->create(['project_id' => $project->id, 'name' => $name, 'columns' => $kept])
                ->refresh();
        } else {
            $table->update(['name' => $name, 'columns' => $kept, 'revision' => $table->revision + 1]);
            $table->rows()->delete();
        }
        foreach (
            array_chunk(
                array_map(
                    static fn(string $id, array $cells, int $i): array => [
                        'id' => $id,
                        'table_id' => $table->id,
                        'position' => $i + 1,
                        'cells' => json_encode(DataRow::kept($cells, $kept), \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE),
                    ],
                    $ids,
                    $core->rows,
                    array_keys($core->rows),
                ),
                1000,
            )
            as $some
        ) {
            DB::table('data_rows')->insert($some);
        }
        ProjectSecrets::remember($table, $core->rows);
        ($this->announce)($project->id, 'case', $table->id);

        return $table->unsetRelations();
    }

    /**
     * @throws Conflict with the cases, while any is bound to it
     */
    public function bin(DataTable $table): void
    {
        $uses = $this->shelf->tableUses($table);
        if ([] !== $uses) {
            throw InUse::inPlaces($table->name, $uses, 'Choose another table there first.');
        }
        $table->update(['binned_at' => Carbon::now()]);
        ($this->announce)($table->project_id, 'case', $table->id);
    }

    public function restore(DataTable $table): void
    {
        SaveRoutine::refuseTaken('data_tables', $table->project_id, $table->name, $table->id);
        $table->update(['binned_at' => null]);
        ($this->announce)($table->project_id, 'case', $table->id);
    }

    /**
     * A column that a case asks for is not taken out, but shown where.
     *
     * @param  list<string>  $names
     */
    private function refuseMissing(DataTable $table, array $names): void
    {
        $kept = array_map(mb_strtolower(...), $names);
        $gone = array_values(
            array_filter(array_column($table->columns, 'name'), static fn(string $n): bool => !\in_array(mb_strtolower($n), $kept, true)),
        );
        if ([] === $gone) {
            return;
        }
        $lower = array_map(mb_strtolower(...), $gone);
        $places = [];
        $book = RoutineBook::all($table->project_id);
        foreach (
            CaseVersion::query()
                ->whereIn('id', TestCase::query()->where('table_id', $table->id)->whereNull('binned_at')->select('version_id'))
                ->with('steps', 'case')
                ->get()
            as $version
        ) {
            $text = $version->text();
            foreach ($book->expand($text->steps) as $expanded) {
                $asked = Template::parse("{$expanded->step->action}\n{$expanded->step->data}\n{$expanded->step->expected}")->names();
                foreach (array_intersect($lower, $asked) as $name) {
                    $places["{$version->case->key} step {$expanded->position}"] = $name;
                }
            }
        }
        if ([] !== $places) {
            $first = array_slice(array_keys($places), 0, 5);
            throw InUse::because(
                \sprintf(
                    '{{%s}} is asked for in %s%s. Change it there first.',
                    implode('}}, {{', array_unique(array_values($places))),
                    implode(', ', $first),
                    \count($places) > 5 ? \sprintf(' and %d more places', \count($places) - 5) : '',
                ),
                ['places' => array_keys($places)],
            );
        }
    }
}
