<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Casebook\Actions\SaveRoutine;
use LucidStep\App\Areas\Coverage\Actions\SaveRequirement;
use LucidStep\App\Areas\Evidence\Jobs\MakeThumbnail;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\DataRow;
use LucidStep\App\Models\DataTable;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Secrets\ProjectSecrets;
use LucidStep\Core\Casebook\CustomField;
use LucidStep\Core\Coverage\RequirementWords;
use LucidStep\Core\Data\Column;
use LucidStep\Core\Data\DataTable as CoreTable;
use LucidStep\Core\Data\Parameter;
use LucidStep\Core\Exchange\JsonCases;
use LucidStep\Core\Exchange\Unreadable;

/**
 * What a casebook brings along beside its cases: types, fields, requirements, tables, routines and pictures. What has
 * the name of something that is there is taken for that and left as it is.
 */
final readonly class ImportReferenceData
{
    public function __construct(private SaveRoutine $routines, private SaveRequirement $requirements, private Filesystem $files) {}

    /**
     * @throws Unreadable when something of it cannot be
     * @return array<string, string> ids of requirements by the keys they have in the file
     */
    public function bring(Project $project, User $author, JsonCases $all): array
    {
        (new ProjectLists($project))->addTypes(array_map(ImportRows::name(...), $all->types));
        $this->fields($project, $all->fields);
        $requirements = $this->requirements($project, $author, $all->requirements);
        $this->tables($project, $all->tables);
        $this->pictures($project, $author, $all->files);
        $this->routines($project, $author, $all->routines);

        return $requirements;
    }

    /**
     * @param  list<array<string, mixed>>  $fields
     */
    private function fields(Project $project, array $fields): void
    {
        $known = array_map(static fn(CustomField $f): string => mb_strtolower($f->name), (new ProjectLists($project))->fields());
        foreach ($fields as $i => $field) {
            if (
                !\in_array(mb_strtolower(ImportRows::name($field)), $known, true) &&
                '' !== ImportRows::name($field) &&
                \in_array($field['kind'] ?? '', CustomField::KINDS, true)
            ) {
                DB::table('custom_fields')->insert([
                    'id' => (string) Str::uuid7(),
                    'project_id' => $project->id,
                    'name' => mb_substr(ImportRows::name($field), 0, 60),
                    'kind' => $field['kind'],
                    'choices' => json_encode(array_values((array) ($field['choices'] ?? [])), \JSON_THROW_ON_ERROR),
                    'required' => true === ($field['required'] ?? false),
                    'position' => \count($known) + $i,
                ]);
            }
        }
    }

    /**
     * @param  list<array<string, mixed>>  $requirements
     *
     * @return array<string, string>
     */
    private function requirements(Project $project, User $author, array $requirements): array
    {
        $ids = [];
        foreach ($requirements as $one) {
            $title = \is_string($one['title'] ?? null) ? $one['title'] : '';
            $key = \is_string($one['key'] ?? null) ? $one['key'] : '';
            $there = DB::table('requirements')->where('project_id', $project->id)->where('title', $title)->value('id');
            $ids[$key] = \is_string($there)
                ? $there
                : $this->requirements->make(
                    $project,
                    $author,
                    RequirementWords::titled('' === $title ? $key : $title, \is_string($one['text'] ?? null) ? $one['text'] : ''),
                    $ids[(string) ($one['parent'] ?? '')] ?? null,
                )->id;
        }

        return $ids;
    }

    /**
     * @param  list<array<string, mixed>>  $tables
     */
    private function tables(Project $project, array $tables): void
    {
        foreach ($tables as $one) {
            $name = ImportRows::name($one);
            if (
                DataTable::query()
                    ->where('project_id', $project->id)
                    ->whereNull('binned_at')
                    ->whereRaw('lower(name) = lower(?)', [$name])
                    ->exists()
            ) {
                continue;
            }
            $columns = array_map(
                static fn(array $c): Column => new Column(ImportRows::name($c), true === ($c['secret'] ?? false)),
                array_values(array_filter((array) ($one['columns'] ?? []), is_array(...))),
            );
            $rows = array_map(
                static fn(array $r): array => array_values(array_map(static fn(mixed $c): string => \is_scalar($c) ? (string) $c : '', $r)),
                array_values(array_filter((array) ($one['rows'] ?? []), is_array(...))),
            );
            try {
                $core = CoreTable::of($columns, $rows);
            } catch (Unreadable $e) {
                throw Unreadable::because("The data table \"{$name}\": {$e->getMessage()}");
            }
            $kept = array_map(static fn(Column $c): array => ['name' => $c->name, 'secret' => $c->secret], $columns);
            $table = DataTable::query()->create(['project_id' => $project->id, 'name' => mb_substr($name, 0, 120), 'columns' => $kept]);
            foreach ($core->rows as $i => $row) {
                DataRow::query()->create(['table_id' => $table->id, 'position' => $i + 1, 'cells' => DataRow::kept($row, $kept)]);
            }
            ProjectSecrets::remember($table, $core->rows);
        }
    }

    /**
     * @param  array<string, string>  $files
     */
    private function pictures(Project $project, User $author, array $files): void
    {
        foreach ($files as $hash => $base64) {
            $bytes = (string) base64_decode($base64, true);
            $size = @getimagesizefromstring($bytes);
            $types = [\IMAGETYPE_PNG => 'image/png', \IMAGETYPE_JPEG => 'image/jpeg', \IMAGETYPE_WEBP => 'image/webp'];
            if (
                hash('sha256', $bytes) !== (string) $hash ||
                false === $size ||
                !isset($types[$size[2]]) ||
                $size[0] * $size[1] > config('lucid.evidence.max_pixels')
            ) {
                throw Unreadable::because('A picture in this casebook is damaged, or is no picture.');
            }
            $file =
                StoredFile::query()->find($hash) ??
                new StoredFile([
                    'sha256' => (string) $hash,
                    'bytes' => \strlen($bytes),
                    'media_type' => $types[$size[2]],
                    'width' => $size[0],
                    'height' => $size[1],
                    'thumbnail' => 'waiting',
                    'created_at' => Carbon::now(),
                ]);
            if (!$this->files->exists($file->path())) {
                $this->files->put($file->path(), $bytes);
            }
            if (!$file->exists && StoredFile::query()->insertOrIgnore($file->getAttributes()) > 0) {
                MakeThumbnail::dispatch((string) $hash);
            }
            DB::table('project_files')->insertOrIgnore([
                'project_id' => $project->id,
                'sha256' => (string) $hash,
                'added_by_id' => $author->id,
                'created_at' => Carbon::now(),
            ]);
        }
    }

    /**
     * Routines may use one another: those come first that need none of the others.
     *
     * @param  list<array<string, mixed>>  $routines
     */
    private function routines(Project $project, User $author, array $routines): void
    {
        $known = [];
        foreach (DB::table('routines')->where('project_id', $project->id)->whereNull('binned_at')->pluck('id', 'name') as $name => $id) {
            $known[mb_strtolower((string) $name)] = (string) $id;
        }
        $left = array_values(
            array_filter(
                $routines,
                static fn(array $r): bool => '' !== ImportRows::name($r) && !isset($known[mb_strtolower(ImportRows::name($r))]),
            ),
        );
        while ([] !== $left) {
            $later = [];
            foreach ($left as $one) {
                /** @var list<\LucidStep\Core\Exchange\ReadError> $errors */
                $errors = [];
                $steps = [];
                foreach (array_filter((array) ($one['steps'] ?? []), is_array(...)) as $step) {
                    $steps[] = JsonCases::toStep($step, $known, $errors);
                }
                if ([] !== $errors) {
                    $later[] = $one;

                    continue;
                }
                $parameters = array_map(
                    static fn(array $p): Parameter => new Parameter(
                        ImportRows::name($p),
                        \is_string($p['default'] ?? null) ? $p['default'] : '',
                    ),
                    array_values(array_filter((array) ($one['parameters'] ?? []), is_array(...))),
                );
                $known[mb_strtolower(ImportRows::name($one))] = $this->routines->store(
                    $project,
                    null,
                    mb_substr(ImportRows::name($one), 0, 120),
                    \is_string($one['description'] ?? null) ? $one['description'] : '',
                    $parameters,
                    $steps,
                    $author,
                )->id;
            }
            if (\count($later) === \count($left)) {
                throw Unreadable::because(
                    'The routines of this casebook need each other in a circle, or one that is missing: ' .
                        implode(', ', array_map(ImportRows::name(...), $later)) .
                        '.',
                );
            }
            $left = $later;
        }
    }
}
