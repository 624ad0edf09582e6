<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Actions\CaseFields;
use LucidStep\App\Areas\Casebook\Queries\FolderPaths;
use LucidStep\App\Areas\Coverage\Actions\SaveRequirement;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\DataTable;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Routine;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\Comparison;
use LucidStep\Core\Casebook\CustomField;
use LucidStep\Core\Coverage\RequirementWords;
use LucidStep\Core\Exchange\CaseColumns;
use LucidStep\Core\Exchange\CaseRow;
use LucidStep\Core\Exchange\ImportContext;
use LucidStep\Core\Exchange\JsonCases;

/**
 * Makes of the rows of a file what the cases of a project would be.
 */
final class ImportRows
{
    private readonly ProjectLists $lists;

    public readonly FolderPaths $folders;

    /** @var array<string, array<string, string>> kinds by case and by the key of the case that it needs, of those found last */
    private array $needs = [];

    /** @var array<string, string> ids by key and by title, in lower case */
    private array $requirements = [];

    /** @var array<string, CustomField> by name in lower case */
    private array $fields = [];

    /**
     * @param  array<string, string>  $known requirements by the keys that the file has for them
     */
    public function __construct(
        private readonly Project $project,
        private readonly User $author,
        private readonly SaveRequirement $keep,
        array $known = [],
    ) {
        $this->lists = new ProjectLists($project);
        $this->folders = new FolderPaths($project);
        foreach ($this->lists->fields() as $field) {
            $this->fields[mb_strtolower($field->name)] = $field;
        }
        foreach (
            DB::table('requirements')
                ->where('project_id', $project->id)
                ->get(['id', 'key', 'title'])
            as $row
        ) {
            $this->requirements[mb_strtolower($row->title)] = $row->id;
            $this->requirements[mb_strtolower($row->key)] = $row->id;
        }
        foreach ($known as $key => $id) {
            $this->requirements[mb_strtolower((string) $key)] = $id;
        }
    }

    /**
     * @param  ?JsonCases  $with what comes in the same file and so will be there
     * @param  array<string, array<string, string>>  $meant what words of the file mean, by field and word in lower case
     */
    public function surroundings(?JsonCases $with = null, array $meant = []): ImportContext
    {
        $people = [];
        foreach (
            DB::table('memberships')
                ->join('users', 'users.id', '=', 'user_id')
                ->where('project_id', $this->project->id)
                ->get(['users.id', 'users.name', 'users.email'])
            as $row
        ) {
            $people[mb_strtolower($row->name)] = $people[mb_strtolower($row->email)] = $row->id;
        }
        $routines = $tables = [];
        foreach (Routine::query()->where('project_id', $this->project->id)->whereNull('binned_at')->get() as $routine) {
            $routines[mb_strtolower($routine->name)] = $routine->id;
        }
        foreach (DataTable::query()->where('project_id', $this->project->id)->whereNull('binned_at')->get() as $table) {
            $tables[mb_strtolower($table->name)] = $table->id;
        }
        $fields = $this->fields;
        foreach ($with->routines ?? [] as $routine) {
            $routines[mb_strtolower(self::name($routine))] ??= 'new:' . self::name($routine);
        }
        foreach ($with->tables ?? [] as $table) {
            $tables[mb_strtolower(self::name($table))] ??= 'new:' . self::name($table);
        }
        foreach ($with->fields ?? [] as $field) {
            $kind = $field['kind'] ?? '';
            if (\in_array($kind, CustomField::KINDS, true)) {
                $fields[mb_strtolower(self::name($field))] ??= new CustomField(
                    'new:' . self::name($field),
                    self::name($field),
                    $kind,
                    array_values(array_filter((array) ($field['choices'] ?? []), is_string(...))),
                );
            }
        }

        $requirements = $this->requirements;
        foreach ($with->requirements ?? [] as $requirement) {
            $requirements[mb_strtolower(\is_string($requirement['key'] ?? null) ? $requirement['key'] : '')] ??= 'new';
        }

        return new ImportContext(
            $this->lists->byName('type'),
            $this->lists->byName('priority'),
            $people,
            $routines,
            $tables,
            $fields,
            $requirements,
            $meant,
        );
    }

    /**
     * The cases that the keys of some rows name.
     *
     * @param  list<CaseRow>  $rows
     *
     * @return Collection<string, TestCase> by key
     */
    public function existing(array $rows, bool $lock): Collection
    {
        $keys = array_values(array_filter(array_map(static fn(CaseRow $r): ?string => $r->key, $rows), is_string(...)));
        $this->needs = [];

        $found =
            [] === $keys
                ? new Collection()
                : TestCase::query()
                    ->where('project_id', $this->project->id)
                    ->whereIn('key', $keys)
                    ->with('version.steps', 'requirements')
                    ->when($lock, static fn($q) => $q->lockForUpdate())
                    ->get()
                    ->keyBy('key');
        $saying = array_filter($rows, static fn(CaseRow $r): bool => isset($r->fields['needs']));
        foreach ([] === $saying || $found->isEmpty() ? [] : $this->needsOf($found) as $need) {
            $this->needs[$need->case_id][$need->key] = $need->kind;
        }

        return $found;
    }

    /**
     * Whether a case usually waits for what the file says, as far as that says anything.
     *
     * @param  TestCase  $old one of those that {@see existing()} found last
     */
    public function waitsAsBefore(CaseRow $row, TestCase $old): bool
    {
        return !isset($row->fields['needs']) || $row->fields['needs'] == ($this->needs[$old->id] ?? []);
    }

    /**
     * @param  Collection<string, TestCase>  $cases
     *
     * @return list<\stdClass> case_id, key, kind
     */
    private function needsOf(Collection $cases): array
    {
        return array_values(
            DB::table('case_conditions')
                ->join('cases', 'cases.id', '=', 'needs_id')
                ->whereIn('case_id', $cases->pluck('id'))
                ->get(['case_id', 'cases.key', 'kind'])
                ->all(),
        );
    }

    public function text(CaseRow $row, ?TestCase $old): CaseText
    {
        $before = $old?->version->text() ?? new CaseText('');
        $said = static fn(string $name, string $else): string => \is_string($row->fields[$name] ?? null) ? $row->fields[$name] : $else;

        return new CaseText(
            '' === $row->title() ? $before->title : $row->title(),
            $said('objective', $before->objective),
            $said('preconditions', $before->preconditions),
            $said('postconditions', $before->postconditions),
            null === $row->steps ? $before->steps : Comparison::withPicturesOf($before->steps, $row->steps),
            \array_key_exists('table', $row->fields) ? $row->fields['table'] : $before->table,
            $row->fields['files'] ?? $before->files,
        );
    }

    /**
     * @param  bool  $make whether folders and requirements that are missing are made
     */
    public function fields(CaseRow $row, ?TestCase $old, bool $make): CaseFields
    {
        $before =
            null === $old
                ? new CaseFields(type: $this->lists->usualType(), priority: $this->lists->usualPriority(), owner_id: $this->author->id)
                : CaseFields::of($old);
        $changes = [];
        foreach (['automated', 'labels'] as $name) {
            if (isset($row->fields[$name])) {
                $changes[$name] = $row->fields[$name];
            }
        }
        if (isset($row->fields['template'])) {
            $changes['is_template'] = $row->fields['template'];
        }
        // An empty cell leaves these as they are: a case always has one.
        foreach (['type', 'priority', 'state'] as $name) {
            if ('' !== ($row->fields[$name] ?? '')) {
                $changes[$name] = $row->fields[$name];
            }
        }
        if (\array_key_exists('estimate', $row->fields)) {
            $changes['estimate_seconds'] = $row->fields['estimate'];
        }
        if (\array_key_exists('owner', $row->fields)) {
            $changes['owner_id'] = $row->fields['owner'];
        }
        if (isset($row->fields['folder'])) {
            $found = $this->folders->find($row->fields['folder']);
            $changes['folder_id'] =
                [] === $row->fields['folder'] ? null : $found ?? ($make ? $this->folders->at($row->fields['folder']) : 'new');
        }
        if (isset($row->fields['requirements'])) {
            $changes['requirements'] = array_values(
                array_unique(array_map(fn(string $r): string => $this->requirement($r, $make), $row->fields['requirements'])),
            );
            sort($changes['requirements']);
        }
        $custom = $before->custom;
        foreach ($row->fields as $target => $value) {
            $field = str_starts_with((string) $target, CaseColumns::CUSTOM)
                ? $this->fields[mb_strtolower(substr((string) $target, \strlen(CaseColumns::CUSTOM)))] ?? null
                : null;
            if (null !== $field && \is_string($value)) {
                $custom[$field->id] = $value;
            }
        }
        $changes['custom'] = array_filter($custom, static fn(string $v): bool => '' !== $v);
        ksort($changes['custom']);

        return $before->with($changes);
    }

    /**
     * @param  array<string, mixed>  $row
     */
    public static function name(array $row): string
    {
        return \is_string($row['name'] ?? null) ? trim($row['name']) : '';
    }

    private function requirement(string $named, bool $make): string
    {
        $key = mb_strtolower($named);
        if (!isset($this->requirements[$key]) && $make) {
            $this->requirements[$key] = $this->keep->make($this->project, $this->author, RequirementWords::titled($named))->id;
        }

        return $this->requirements[$key] ?? "new:{$named}";
    }
}
