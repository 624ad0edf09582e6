<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Casebook;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Actions\NextKey;
use LucidStep\App\Actions\Walk\Announce;
use LucidStep\App\Models\Folder;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\Core\Exchange\CaseRow;
use LucidStep\Core\Exchange\CasesUnreadable;
use LucidStep\Core\Exchange\CsvCases;

/**
 * Brings the cases of a CSV file into a project: all of them, or none.
 */
final readonly class ImportCases
{
    public function __construct(private NextKey $nextKey, private Announce $announce)
    {
    }

    /**
     * @return list<string> the keys of the new cases, in the file's order
     *
     * @throws CasesUnreadable when the file has faults; nothing is written then
     */
    public function __invoke(Project $project, User $author, string $csv): array
    {
        $rows = CsvCases::read($csv);

        return DB::transaction(function () use ($project, $author, $rows): array {
            $numbers = $this->nextKey->reserve($project, 'case', \count($rows));
            $folders = $this->folders($project, $rows);
            $place = (int) TestCase::query()->where('project_id', $project->id)->max('position');
            $cases = $versions = $steps = $keys = [];
            $now = Carbon::now();
            foreach ($rows as $i => $row) {
                $case = (string) Str::uuid7();
                $version = (string) Str::uuid7();
                $number = $numbers + $i;
                $keys[] = $key = "{$project->code}-C{$number}";
                $cases[] = [
                    'id' => $case, 'project_id' => $project->id, 'folder_id' => [] === $row->folder ? null : $folders[implode('/', $row->folder)],
                    'number' => $number, 'key' => $key, 'title' => $row->title, 'state' => $row->state, 'type' => $row->type, 'priority' => $row->priority,
                    'estimate_seconds' => $row->estimate, 'owner_id' => $author->id, 'labels' => json_encode($row->labels, \JSON_THROW_ON_ERROR),
                    'version_id' => $version, 'position' => $place + $i + 1, 'created_at' => $now, 'updated_at' => $now,
                ];
                $versions[] = [
                    'id' => $version, 'case_id' => $case, 'number' => 1, 'title' => $row->title, 'objective' => $row->objective,
                    'preconditions' => $row->preconditions, 'postconditions' => $row->postconditions, 'author_id' => $author->id, 'created_at' => $now,
                ];
                foreach ($row->steps as $at => $step) {
                    $steps[] = ['id' => (string) Str::uuid7(), 'case_version_id' => $version, 'position' => $at + 1, 'action' => $step->action, 'data' => $step->data, 'expected' => $step->expected];
                }
            }
            foreach (['cases' => $cases, 'case_versions' => $versions, 'steps' => $steps] as $table => $all) {
                foreach (array_chunk($all, 1000) as $some) {
                    DB::table($table)->insert($some);
                }
            }
            ($this->announce)($project->id, 'case', $project->id);

            return $keys;
        });
    }

    /**
     * Finds or makes the folders that the rows name.
     *
     * @param  list<CaseRow>  $rows
     *
     * @return array<string, string> folder id by path
     */
    private function folders(Project $project, array $rows): array
    {
        $known = [];
        foreach (Folder::query()->where('project_id', $project->id)->get() as $folder) {
            $known["{$folder->parent_id}/{$folder->name}"] = $folder->id;
        }
        $paths = [];
        foreach ($rows as $row) {
            $parent = null;
            foreach ($row->folder as $depth => $name) {
                $known["{$parent}/{$name}"] ??= Folder::query()->create(['project_id' => $project->id, 'parent_id' => $parent, 'name' => $name, 'position' => \count($known) + 1])->id;
                $parent = $known["{$parent}/{$name}"];
                $paths[implode('/', \array_slice($row->folder, 0, $depth + 1))] = $parent;
            }
        }

        return $paths;
    }
}
