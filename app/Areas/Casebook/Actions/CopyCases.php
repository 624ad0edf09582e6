<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Queries\FolderPaths;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\DataRow;
use LucidStep\App\Models\DataTable;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Routine;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\Step;

/**
 * Copies cases, within a project or to another: routines and data tables come along, or those of the same name are
 * taken. The values of secret columns stay behind.
 */
final readonly class CopyCases
{
    public function __construct(private SaveRoutine $routines) {}

    /**
     * @param  Collection<int, TestCase>  $cases with version and steps
     * @param  list<mixed>  $folder  where they go, as its only element; empty: beside the original
     *
     * @return list<array{id: string, key: string}>
     */
    public function within(Project $project, Collection $cases, array $folder, CaseWriter $writer): array
    {
        $made = [];
        foreach ($cases as $case) {
            $text = $case->version->text();
            $title = $case->is_template ? $text->title : mb_strcut($text->title, 0, 1100) . ' (copy)';
            $fields = CaseFields::of($case)->with([
                'state' => CaseState::Draft,
                'is_template' => false,
                ...[] === $folder ? [] : ['folder_id' => $folder[0]],
            ]);
            $made[] = $writer->add(CaseText::fromArray([...$text->toArray(), 'title' => mb_substr($title, 0, 300)]), $fields, 'copied', [
                'comment' => "From {$case->key}",
            ]);
        }
        $writer->end();

        return $made;
    }

    /**
     * @param  Collection<int, TestCase>  $cases with version and steps
     *
     * @return list<array{id: string, key: string}>
     */
    public function into(Project $from, Project $to, Collection $cases, CaseWriter $writer): array
    {
        $paths = new FolderPaths($from);
        $folders = new FolderPaths($to);
        $lists = new ProjectLists($to);
        $lists->addTypes(array_values(array_unique($cases->map(static fn(TestCase $c): string => $c->type)->all())));
        $fields = [];
        foreach ((new ProjectLists($from))->fields() as $id => $field) {
            foreach ($lists->fields() as $other) {
                if (mb_strtolower($other->name) === mb_strtolower($field->name)) {
                    $fields[$id] = $other;
                }
            }
        }
        $members = DB::table('memberships')->where('project_id', $to->id)->pluck('user_id')->all();
        $routines = $tables = $made = [];
        foreach ($cases as $case) {
            $text = $case->version->text();
            $steps = array_map(fn(Step $s): Step => $this->step($s, $from, $to, $routines), $text->steps);
            $this->files($from, $to, [
                ...$text->files,
                ...array_merge(...array_map(static fn(Step $s): array => $s->files, $steps) ?: [[]]),
            ]);
            $table = null === $text->table ? null : $this->table($text->table, $to, $tables);
            $custom = [];
            foreach ($case->custom as $id => $value) {
                try {
                    $custom[$fields[$id]->id ?? ''] = isset($fields[$id]) ? $fields[$id]->take($value) : '';
                } catch (\DomainException) {
                    // A value that the other project's field does not take stays behind.
                }
            }
            $made[] = $writer->add(
                CaseText::fromArray([
                    ...$text->toArray(),
                    'steps' => array_map(static fn(Step $s): array => $s->toArray(), $steps),
                    'table' => $table,
                ]),
                CaseFields::of($case)->with([
                    'folder_id' => $folders->at($paths->path($case->folder_id)),
                    'state' => CaseState::Draft,
                    'requirements' => [],
                    'custom' => array_filter(
                        $custom,
                        static fn(string $v, string $id): bool => '' !== $id && '' !== $v,
                        \ARRAY_FILTER_USE_BOTH,
                    ),
                    'owner_id' => \in_array($case->owner_id, $members, true) ? $case->owner_id : null,
                    'priority' => \in_array($case->priority, $lists->values('priority'), true) ? $case->priority : $lists->usualPriority(),
                ]),
                'copied',
                ['comment' => "From {$case->key}"],
            );
        }
        $writer->end();

        return $made;
    }

    /**
     * @param  array<string, string>  $done ids there by ids here
     */
    private function step(Step $step, Project $from, Project $to, array &$done): Step
    {
        if (null === $step->routine) {
            return $step;
        }
        $done[$step->routine] ??= $this->routine($step->routine, $from, $to, $done);

        return '' === $done[$step->routine]
            ? new Step("(A routine stood here that is gone from {$from->name}.)")
            : new Step('', '', '', [], $done[$step->routine], $step->values);
    }

    /**
     * @param  array<string, string>  $done
     */
    private function routine(string $id, Project $from, Project $to, array &$done): string
    {
        $routine = Routine::query()->where('project_id', $from->id)->with('version.steps')->find($id);
        if (null === $routine) {
            return '';
        }
        $same = Routine::query()
            ->where('project_id', $to->id)
            ->whereNull('binned_at')
            ->whereRaw('lower(name) = lower(?)', [$routine->name])
            ->value('id');
        if (\is_string($same)) {
            return $same;
        }
        $core = $routine->version->toCore();
        $steps = [];
        foreach ($core->steps as $step) {
            $steps[] = $this->step($step, $from, $to, $done);
        }
        $this->files($from, $to, array_merge(...array_map(static fn(Step $s): array => $s->files, $steps) ?: [[]]));

        return $this->routines->store($to, null, $routine->name, $routine->description, $core->parameters, $steps, null)->id;
    }

    /**
     * @param  array<string, string>  $done
     */
    private function table(string $id, Project $to, array &$done): ?string
    {
        if (isset($done[$id])) {
            return $done[$id];
        }
        $table = DataTable::query()->with('rows')->find($id);
        if (null === $table) {
            return null;
        }
        $same = DataTable::query()
            ->where('project_id', $to->id)
            ->whereNull('binned_at')
            ->whereRaw('lower(name) = lower(?)', [$table->name])
            ->value('id');
        if (!\is_string($same)) {
            $copy = DataTable::query()->create(['project_id' => $to->id, 'name' => $table->name, 'columns' => $table->columns]);
            foreach ($table->rows as $row) {
                $cells = array_map(
                    static fn(array $c, int $i): string => $c['secret'] ? '' : $row->cells[$i] ?? '',
                    $table->columns,
                    array_keys($table->columns),
                );
                DataRow::query()->create(['table_id' => $copy->id, 'position' => $row->position, 'cells' => $cells]);
            }
            $same = $copy->id;
        }

        return $done[$id] = $same;
    }

    /**
     * @param  list<array{sha256: string, name: string}>  $files
     */
    private function files(Project $from, Project $to, array $files): void
    {
        if ([] !== $files) {
            DB::table('project_files')->insertOrIgnoreUsing(
                ['project_id', 'sha256', 'added_by_id', 'created_at'],
                DB::table('project_files')
                    ->where('project_id', $from->id)
                    ->whereIn('sha256', array_column($files, 'sha256'))
                    ->selectRaw('?::uuid, sha256, added_by_id, ?::timestamptz', [$to->id, Carbon::now()]),
            );
        }
    }
}
