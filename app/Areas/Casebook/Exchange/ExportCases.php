<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Areas\Casebook\Queries\FolderPaths;
use LucidStep\App\Areas\Casebook\Queries\RoutineBook;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\CaseExport;
use LucidStep\App\Models\DataRow;
use LucidStep\App\Models\DataTable;
use LucidStep\App\Models\JobState;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Requirement;
use LucidStep\App\Models\Routine;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\CustomField;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Data\ExpandedStep;
use LucidStep\Core\Data\Routines;
use LucidStep\Core\Exchange\CaseOut;
use LucidStep\Core\Exchange\CaseReader;
use LucidStep\Core\Exchange\CaseSheet;
use LucidStep\Core\Exchange\JsonCases;
use LucidStep\Core\Exchange\MarkdownCases;

/**
 * Takes cases out: CSV and XLSX, the casebook's own JSON, Markdown, and a page to print. Secret cells stay in.
 */
final readonly class ExportCases
{
    public const FORMATS = ['csv', 'xlsx', 'json', 'md', 'html'];

    private const CHUNK = 200;

    /** Pictures that go into one file, together. */
    private const MOST_PICTURE_BYTES = 50 * 1024 * 1024;

    public function __construct(
        private Filesystem $files,
        private Progress $progress,
        private Workbook $workbook,
        private PrintPage $page,
        private ExchangeSuites $suites,
    ) {}

    public function run(CaseExport $export): void
    {
        $export->update(['state' => JobState::Running]);
        $project = Project::query()->findOrFail($export->project_id);
        $this->files->makeDirectory('exports');
        $path = $this->files->path($export->path);
        try {
            match ($export->format) {
                'csv' => $this->csv($export, $project, $path),
                'xlsx' => $this->workbook->write($path, $this->sheet($export, $project)),
                'json' => $this->json($export, $project, $path),
                'md' => $this->markdown($export, $project, $path),
                default => $this->page->write($path, $project, $this->cases($export, $project), fn(string $sha) => $this->picture($sha)),
            };
            $export->update(['state' => JobState::Done, 'bytes' => (int) filesize($path)]);
        } catch (Cancelled) {
            $export->update(['state' => JobState::Failed, 'problem' => 'Stopped by you.']);
            $this->files->delete($export->path);
        }
    }

    /**
     * @return \Generator<int, list<string>>
     */
    private function sheet(CaseExport $export, Project $project): \Generator
    {
        $layout = CaseReader::BY_CASE === $export->options['layout'] ? CaseReader::BY_CASE : CaseReader::BY_STEP;
        $sheet = new CaseSheet(
            $layout,
            array_values(array_map(static fn(CustomField $f): string => $f->name, (new ProjectLists($project))->fields())),
        );
        yield $sheet->header();
        foreach ($this->cases($export, $project) as $case) {
            yield from $sheet->rows($case);
        }
    }

    private function csv(CaseExport $export, Project $project, string $path): void
    {
        $out = fopen($path, 'w') ?: throw new \RuntimeException("{$path} cannot be written.");
        // The mark tells spreadsheets that this is UTF-8.
        fwrite($out, "\xEF\xBB\xBF");
        foreach ($this->sheet($export, $project) as $row) {
            fputcsv($out, $row, ',', '"', '', "\r\n");
        }
        fclose($out);
    }

    private function markdown(CaseExport $export, Project $project, string $path): void
    {
        $out = fopen($path, 'w') ?: throw new \RuntimeException("{$path} cannot be written.");
        fwrite($out, "# {$project->name}: casebook\n\n");
        foreach ($this->cases($export, $project) as $case) {
            fwrite($out, MarkdownCases::case($case));
        }
        fclose($out);
    }

    private function json(CaseExport $export, Project $project, string $path): void
    {
        $out = fopen($path, 'w') ?: throw new \RuntimeException("{$path} cannot be written.");
        $encode = static fn(mixed $v): string => json_encode($v, \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR);
        fwrite(
            $out,
            "{\n\"format\": " .
                $encode(JsonCases::FORMAT) .
                ",\n\"version\": " .
                JsonCases::VERSION .
                ",\n\"project\": " .
                $encode($project->name) .
                ",\n\"written_at\": " .
                $encode(Carbon::now()->toIso8601ZuluString()),
        );
        $lists = new ProjectLists($project);
        fwrite(
            $out,
            ",\n\"types\": " .
                $encode(array_map(static fn(array $i): array => ['value' => $i['value'], 'name' => $i['name']], $lists->items('type'))),
        );
        fwrite(
            $out,
            ",\n\"fields\": " .
                $encode(
                    array_values(
                        array_map(
                            static fn(CustomField $f): array => [
                                'name' => $f->name,
                                'kind' => $f->kind,
                                'choices' => $f->choices,
                                'required' => $f->required,
                            ],
                            $lists->fields(),
                        ),
                    ),
                ),
        );
        $files = [];
        [$routines, $tables, $requirements] = $this->aside($project, $files);
        fwrite(
            $out,
            ",\n\"requirements\": " .
                $encode($requirements) .
                ",\n\"tables\": " .
                $encode($tables) .
                ",\n\"routines\": " .
                $encode($routines) .
                ",\n\"folders\": " .
                $encode((new FolderPaths($project))->all()) .
                ",\n\"suites\": " .
                $encode($this->suites->out($project)) .
                ",\n\"cases\": [",
        );
        $separator = "\n";
        $needs = $this->needs($project);
        foreach ($this->cases($export, $project) as $case) {
            foreach (
                [...$case->text->files, ...array_merge(...array_map(static fn(Step $s): array => $s->files, $case->text->steps) ?: [[]])]
                as $file
            ) {
                $files[$file['sha256']] = true;
            }
            fwrite(
                $out,
                $separator .
                    $encode([
                        ...array_filter(
                            [
                                'key' => $case->key,
                                'title' => $case->text->title,
                                'folder' => $case->folder,
                                'objective' => $case->text->objective,
                                'preconditions' => $case->text->preconditions,
                                'postconditions' => $case->text->postconditions,
                                'type' => $case->type,
                                'priority' => $case->priority,
                                'state' => $case->state,
                                'automated' => $case->automated,
                                'template' => $case->template,
                                'owner' => $case->owner,
                                'labels' => $case->labels,
                                'estimate' => $case->estimate,
                                'requirements' => array_keys($case->requirements),
                                'table' => $case->table,
                                'custom' => $case->custom,
                                'files' => $case->text->files,
                                'steps' => array_map(
                                    static fn(Step $s): array => JsonCases::step(
                                        $s,
                                        null === $s->routine ? null : $case->routines[$s->routine] ?? '',
                                    ),
                                    $case->text->steps,
                                ),
                            ],
                            static fn(mixed $v): bool => null !== $v && '' !== $v && [] !== $v,
                        ),
                        'needs' => $needs[$case->key] ?? [],
                    ]),
            );
            $separator = ",\n";
        }
        fwrite($out, "\n],\n\"files\": {");
        $separator = "\n";
        $bytes = 0;
        foreach (array_keys($files) as $sha) {
            $content = $this->picture((string) $sha);
            if (null !== $content && ($bytes += \strlen($content)) <= self::MOST_PICTURE_BYTES) {
                fwrite($out, $separator . $encode((string) $sha) . ': ' . $encode(base64_encode($content)));
                $separator = ",\n";
            }
        }
        fwrite($out, "\n}\n}\n");
        fclose($out);
    }

    /**
     * @return array<string, list<array{case: string, kind: string}>> what cases usually wait for, by key
     */
    private function needs(Project $project): array
    {
        $needs = [];
        foreach (
            DB::table('case_conditions')
                ->join('cases', 'cases.id', '=', 'case_id')
                ->join('cases as needed', 'needed.id', '=', 'needs_id')
                ->where('cases.project_id', $project->id)
                ->whereNull('needed.binned_at')
                ->orderBy('needed.number')
                ->get(['cases.key', 'needed.key as needs', 'kind'])
            as $row
        ) {
            $needs[(string) $row->key][] = ['case' => (string) $row->needs, 'kind' => (string) $row->kind];
        }

        return $needs;
    }

    /**
     * @param  array<string, true>  $files hashes of pictures, added to
     *
     * @return array{list<array<string, mixed>>, list<array<string, mixed>>, list<array<string, mixed>>} routines, tables, requirements
     */
    private function aside(Project $project, array &$files): array
    {
        $book = RoutineBook::all($project->id);
        $routines = $tables = [];
        foreach (Routine::query()->where('project_id', $project->id)->whereNull('binned_at')->orderBy('name')->get() as $routine) {
            $core = $book->find($routine->id);
            foreach ($core->steps ?? [] as $step) {
                foreach ($step->files as $file) {
                    $files[$file['sha256']] = true;
                }
            }
            $routines[] = [
                'name' => $routine->name,
                'description' => $routine->description,
                'parameters' => array_map(static fn($p): array => ['name' => $p->name, 'default' => $p->default], $core->parameters ?? []),
                'steps' => array_map(
                    static fn(Step $s): array => JsonCases::step($s, null === $s->routine ? null : $book->find($s->routine)->name ?? ''),
                    $core->steps ?? [],
                ),
            ];
        }
        foreach (
            DataTable::query()->where('project_id', $project->id)->whereNull('binned_at')->with('rows')->orderBy('name')->get()
            as $table
        ) {
            $tables[] = [
                'name' => $table->name,
                'columns' => $table->columns,
                'rows' => array_values(
                    $table->rows
                        ->map(
                            static fn(DataRow $r): array => array_map(
                                static fn(array $c, int $i): string => $c['secret'] ? '' : $r->cells[$i] ?? '',
                                $table->columns,
                                array_keys($table->columns),
                            ),
                        )
                        ->all(),
                ),
            ];
        }
        $all = Requirement::query()->where('project_id', $project->id)->orderBy('number')->get()->keyBy('id');

        return [
            $routines,
            $tables,
            array_values(
                $all
                    ->map(
                        static fn(Requirement $r): array => [
                            'key' => $r->key,
                            'title' => $r->title,
                            ...'' === $r->text ? [] : ['text' => $r->text],
                            'parent' => $all[$r->parent_id ?? '']->key ?? '',
                        ],
                    )
                    ->all(),
            ),
        ];
    }

    /**
     * @return \Generator<int, CaseOut>
     */
    private function cases(CaseExport $export, Project $project): \Generator
    {
        $filter = CaseFilter::from($project, $export->options['filter'], $export->options['me'] ?? null);
        $lists = new ProjectLists($project);
        $book = RoutineBook::all($project->id);
        $names = [
            'type' => array_column($lists->items('type'), 'name', 'value'),
            'priority' => array_column($lists->items('priority'), 'name', 'value'),
            'table' => DB::table('data_tables')->where('project_id', $project->id)->pluck('name', 'id')->all(),
            'field' => array_map(static fn(CustomField $f): string => $f->name, $lists->fields()),
            'routine' => DB::table('routines')->where('project_id', $project->id)->pluck('name', 'id')->all(),
        ];
        $folders = new FolderPaths($project);
        $expand = true === $export->options['expand'];
        $after = $done = 0;
        do {
            /** @var Collection<int, TestCase> $some */
            $some = $filter
                ->query()
                ->where('number', '>', $after)
                ->with('version.steps', 'owner', 'requirements')
                ->orderBy('number')
                ->limit(self::CHUNK)
                ->get();
            foreach ($some as $case) {
                yield $this->out($case, $folders, $names, $expand ? $book : null);
                $after = $case->number;
            }
            $this->progress->at($export->id, $done += $some->count());
        } while (self::CHUNK === $some->count());
    }

    /**
     * @param  array<string, array<string, string>>  $names
     */
    private function out(TestCase $case, FolderPaths $folders, array $names, ?Routines $expand): CaseOut
    {
        $text = $case->version->text();
        if (null !== $expand) {
            $steps = array_map(static fn(ExpandedStep $s): array => $s->step->toArray(), $expand->expand($text->steps));
            $text = CaseText::fromArray([...$text->toArray(), 'steps' => $steps]);
        }
        $custom = [];
        foreach ($case->custom as $id => $value) {
            if (isset($names['field'][$id])) {
                $custom[$names['field'][$id]] = $value;
            }
        }

        return new CaseOut(
            $case->key,
            $text,
            $folders->path($case->folder_id),
            $names['type'][$case->type] ?? $case->type,
            $names['priority'][$case->priority] ?? $case->priority,
            $case->state,
            $case->automated,
            (string) $case->owner?->email,
            $case->labels,
            $case->estimate_seconds,
            $case->requirements->sortBy('number')->pluck('title', 'key')->all(),
            null === $text->table ? null : $names['table'][$text->table] ?? null,
            $case->is_template,
            $custom,
            $names['routine'],
        );
    }

    private function picture(string $sha): ?string
    {
        $file = StoredFile::query()->find($sha);

        return null !== $file && $this->files->exists($file->path()) ? $this->files->get($file->path()) : null;
    }
}
