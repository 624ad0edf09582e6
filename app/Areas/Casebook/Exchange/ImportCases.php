<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Actions\CaseFields;
use LucidStep\App\Areas\Casebook\Actions\CaseNeeds;
use LucidStep\App\Areas\Casebook\Actions\CaseWriterFactory;
use LucidStep\App\Areas\Casebook\Actions\RememberBulkEdit;
use LucidStep\App\Areas\Casebook\Jobs\FindSimilarCasesAmong;
use LucidStep\App\Areas\Coverage\Actions\SaveRequirement;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\CaseImport;
use LucidStep\App\Models\JobState;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Exchange\CaseReader;
use LucidStep\Core\Exchange\CaseRow;
use LucidStep\Core\Exchange\ImportContext;
use LucidStep\Core\Exchange\JsonCases;
use LucidStep\Core\Exchange\ReadError;
use LucidStep\Core\Exchange\Unreadable;
use LucidStep\Core\Planning\LoopRefused;

/**
 * Reads a file of cases and says what would become of each; once the person says so, writes all of it at once, as one act
 * that can be undone.
 */
final readonly class ImportCases
{
    /** So many cases of the file are listed, those that are refused first. */
    private const REPORTED = 1000;

    private const CHUNK = 200;

    public function __construct(
        private Filesystem $files,
        private ImportFile $file,
        private CaseWriterFactory $writers,
        private Progress $progress,
        private RememberBulkEdit $remember,
        private ImportReferenceData $prelude,
        private SaveRequirement $requirements,
        private ExchangeSuites $suites,
        private CaseNeeds $needs,
        private ImportSurvey $survey,
    ) {}

    /**
     * Reads the whole file and says what would become of each case in it; writes nothing to the casebook.
     */
    public function read(CaseImport $import): void
    {
        try {
            $this->analyse($import);
        } catch (Unreadable $e) {
            $import->update([
                'state' => JobState::Failed,
                'problem' => $e->getMessage() . (1 === $e->errors[0]->row ? '' : " (row {$e->errors[0]->row})"),
            ]);
        }
    }

    /**
     * Writes what was shown, in one transaction.
     */
    public function run(CaseImport $import): void
    {
        $project = Project::query()->findOrFail($import->project_id);
        $author = User::query()->findOrFail($import->author_id);
        try {
            $act = DB::transaction(function () use ($import, $project, $author): string {
                $json = 'json' === $import->format ? $this->file->json($import) : null;
                $requirements = null === $json ? [] : $this->prelude->bring($project, $author, $json);
                (new ProjectLists($project))->addTypes(array_values(array_map(strval(...), $import->facts['new_types'] ?? [])));
                $rows = new ImportRows($project, $author, $this->requirements, $requirements);
                $approval = $this->writers->approval($project, $author);
                $writer = $this->writers->for($project, $author, max(1, (int) ($import->facts['creates'] ?? 1)));
                // As it was shown, whatever was said since.
                $around = $rows->surroundings(null, $import->facts['meant'] ?? []);
                $done = 0;
                $made = $ids = $needs = [];
                foreach ($this->chunks($import, $around, $json ?? new CaseReader($import->mapping, $import->layout, $around)) as $chunk) {
                    $existing = $rows->existing($chunk, true);
                    foreach ($chunk as $row) {
                        $old = null === $row->key ? null : $existing->get($row->key);
                        if ([] !== $row->errors || null !== $old?->binned_at) {
                            continue;
                        }
                        $text = $rows->text($row, $old);
                        $state = $rows->fields($row, $old, false)->state;
                        if ([] !== $approval->refusals($state, $text, $old, null === $json)) {
                            continue;
                        }
                        $fields = $rows->fields($row, $old, true);
                        // What a routine of the same file brings along is known only now.
                        if (null !== $json && [] !== $approval->refusals($state, $text, $old)) {
                            $fields = $fields->with(['state' => CaseState::InReview]);
                        }
                        if (null === $old) {
                            $new = $writer->add($text, $fields, 'imported', [
                                'comment' => $import->name,
                            ]);
                            $made[$new['id']] = ['revision' => 1, 'before' => [], 'made' => true];
                            $ids[(string) $row->key] = $new['id'];
                            $needs[$new['id']] = $row->fields['needs'] ?? [];

                            continue;
                        }
                        $ids[$old->key] = $old->id;
                        $needs += isset($row->fields['needs']) ? [$old->id => $row->fields['needs']] : [];
                        $before = CaseFields::of($old);
                        $oldText = $old->version->text();
                        if ($writer->change($old, $text, $fields, 'imported', ['comment' => $import->name])) {
                            $made[$old->id] = [
                                'revision' => $old->revision,
                                'before' => [
                                    ...array_map(static fn(array $c): mixed => $c[0], $before->changesTo($fields)),
                                    'text' => $oldText->toArray(),
                                ],
                            ];
                        }
                    }
                    $this->progress->at($import->id, $done += \count($chunk));
                }
                $writer->end();
                $suites = [];
                if (null !== $json) {
                    array_map($rows->folders->at(...), array_filter($json->folders, static fn(array $p): bool => \count($p) <= 12));
                    $made = $this->conditions($project, $author, $needs, $ids, $made);
                    [$suites, $left] = $this->suites->bring($project, $json->suites, $ids, $requirements);
                    $import->facts = [...$import->facts, 'left_out' => $left];
                }
                foreach (array_chunk(array_keys($made), FindSimilarCasesAmong::MANY) as $some) {
                    FindSimilarCasesAmong::dispatch($some)->afterCommit();
                }

                return ($this->remember)($project, $author, "Brought in {$import->name}", $made, $rows->folders->made, $suites);
            });
            $import->update(['state' => JobState::Done, 'act_id' => $act, 'finished_at' => Carbon::now()]);
        } catch (Cancelled) {
            $import->update([
                'state' => JobState::Cancelled,
                'problem' => 'Stopped by you. Nothing was written.',
                'finished_at' => Carbon::now(),
            ]);
        } catch (Unreadable $e) {
            $import->update([
                'state' => JobState::Failed,
                'problem' => $e->getMessage() . ' Nothing was written.',
                'finished_at' => Carbon::now(),
            ]);
        }
        $this->files->delete([$import->path, "{$import->path}.rows"]);
    }

    /**
     * What the cases of the file usually wait for, among themselves or on cases that are here.
     *
     * @param  array<string, array<string, string>>  $needs by id: kinds by the key that the file has
     * @param  array<string, string>  $ids by the key that the file has
     * @param  array<string, array{revision: int, before: array<string, mixed>, made?: bool}>  $made
     *
     *
     * @throws Unreadable when cases would wait for each other
     * @return array<string, array{revision: int, before: array<string, mixed>, made?: bool}> with what those waited for that were here
     */
    private function conditions(Project $project, User $author, array $needs, array $ids, array $made): array
    {
        $keys = array_map(strval(...), array_keys(array_merge([], ...array_values($needs))));
        $here = DB::table('cases')->where('project_id', $project->id)->whereIn('key', $keys)->whereNull('binned_at')->pluck('id', 'key');
        $ids += $here->all();
        $before = DB::table('case_conditions')->whereIn('case_id', array_keys($needs))->get()->groupBy('case_id');
        $wanted = [];
        foreach ($needs as $case => $kinds) {
            $wanted[$case] = [];
            foreach ($kinds as $key => $kind) {
                $other = $ids[$key] ?? null;
                if (null !== $other && $other !== $case) {
                    $wanted[$case][$other] = $kind;
                }
            }
            $old = $before->get($case)?->pluck('kind', 'needs_id')->all() ?? [];
            if ($old != $wanted[$case] && !($made[$case]['made'] ?? false)) {
                $revision = $made[$case]['revision'] ?? (int) DB::table('cases')->where('id', $case)->value('revision');
                $made[$case] = ['revision' => $revision, 'before' => [...$made[$case]['before'] ?? [], 'needs' => $old]];
            }
        }
        try {
            $this->needs->replace($project, $author, $wanted);
        } catch (LoopRefused $e) {
            throw Unreadable::because($this->needs->named($e) . '.');
        }

        return $made;
    }

    private function analyse(CaseImport $import): void
    {
        $project = Project::query()->findOrFail($import->project_id);
        $rows = new ImportRows($project, User::query()->findOrFail($import->author_id), $this->requirements);
        $json = 'json' === $import->format ? $this->file->json($import) : null;
        $facts = [
            'rows' => 0,
            'creates' => 0,
            'changes' => 0,
            'same' => 0,
            'refuses' => 0,
            'new_types' => [],
            'charset' => 'UTF-8',
            'separator' => '',
        ];
        $meant = ImportWords::of($project->id);
        $around = $rows->surroundings($json, $meant);
        if (null === $json) {
            $facts = [...$facts, ...($this->survey)($import, $around)];
        }
        $reader = $json ?? new CaseReader($import->mapping, $import->layout, $around);
        $approval = $this->writers->approval($project, User::query()->findOrFail($import->author_id));
        $refused = $listed = $types = $keys = [];
        foreach ($this->chunks($import, $around, $reader) as $chunk) {
            $existing = $rows->existing($chunk, false);
            foreach ($chunk as $row) {
                $old = null === $row->key ? null : $existing->get($row->key);
                $reasons = array_map(
                    static fn(ReadError $e): string => ($e->row !== $row->row ? "Row {$e->row}: " : '') .
                        (null === $e->column ? '' : "{$e->column}: ") .
                        $e->message,
                    $row->errors,
                );
                if ([] === $reasons) {
                    $state = $rows->fields($row, $old, false)->state;
                    $reasons = $approval->refusals($state, $rows->text($row, $old), $old, null === $json);
                }
                if (null !== $old?->binned_at) {
                    $reasons[] = 'It is in the bin. Restore it first, or take the key out to create it anew.';
                }
                if (null !== $row->key && isset($keys[$row->key])) {
                    $reasons[] = "{$row->key} stands in the file more than once.";
                }
                $keys[(string) $row->key] = true;
                $type = $row->fields['type'] ?? '';
                if ([] === $reasons && \is_string($type) && '' !== $type && !isset($around->types[$type])) {
                    $types[$type] = true;
                }
                $is = [] !== $reasons ? 'refuse' : (null === $old ? 'create' : ($this->isSame($rows, $row, $old) ? 'same' : 'change'));
                $facts[['create' => 'creates', 'change' => 'changes', 'same' => 'same', 'refuse' => 'refuses'][$is]]++;
                $facts['rows']++;
                $line = [
                    'row' => $row->row,
                    'is' => $is,
                    'key' => $old->key ?? null,
                    'title' => mb_strimwidth('' === $row->title() ? (string) ($old->title ?? '') : $row->title(), 0, 200, '…'),
                    'steps' => \count($row->steps ?? []),
                    'reasons' => \array_slice($reasons, 0, 10),
                ];
                if ('refuse' === $is && \count($refused) < self::REPORTED) {
                    $refused[] = $line;
                } elseif ('refuse' !== $is && \count($listed) < self::REPORTED) {
                    $listed[] = $line;
                }
            }
        }
        $facts['words'] = $reader instanceof CaseReader ? self::words($reader->cells->unknown, $around) : [];
        $facts['meant'] = $meant;
        $facts['new_types'] = array_map(strval(...), array_keys($types));
        if (0 === $facts['rows']) {
            throw Unreadable::because('There is no case in this file.');
        }
        $import->update([
            'state' => JobState::Ready,
            'facts' => $facts,
            'total' => $facts['rows'],
            'report' => \array_slice([...$refused, ...$listed], 0, self::REPORTED),
        ]);
    }

    /**
     * @return \Generator<int, list<CaseRow>>
     */
    private function chunks(CaseImport $import, ImportContext $around, JsonCases|CaseReader $reader): \Generator
    {
        $cases = $reader instanceof JsonCases ? $reader->cases($around) : $reader->cases($this->rowsBelowHeader($import));
        $chunk = [];
        foreach ($cases as $case) {
            $chunk[] = $case;
            if (\count($chunk) >= self::CHUNK) {
                yield $chunk;
                $chunk = [];
            }
        }
        if ([] !== $chunk) {
            yield $chunk;
        }
    }

    /**
     * @return \Generator<int, list<string>> by number
     */
    private function rowsBelowHeader(CaseImport $import): \Generator
    {
        $header = true;
        foreach ($this->file->rows($import)->rows() as $number => $cells) {
            if (!$header) {
                yield $number => $cells;
            }
            $header = false;
        }
    }

    /**
     * @param  array<string, array<string, int>>  $unknown how often, by field and word
     *
     * @return list<array{field: string, word: string, times: int, value: ?string}> with what each is taken for
     */
    private static function words(array $unknown, ImportContext $around): array
    {
        $words = [];
        foreach ($unknown as $field => $some) {
            foreach ($some as $word => $times) {
                $words[] = [
                    'field' => $field,
                    'word' => mb_strimwidth((string) $word, 0, 200),
                    'times' => $times,
                    'value' => $around->meant($field, (string) $word),
                ];
            }
        }

        return $words;
    }

    private function isSame(ImportRows $rows, CaseRow $row, TestCase $old): bool
    {
        return $rows->waitsAsBefore($row, $old) &&
            [] === CaseFields::of($old)->changesTo($rows->fields($row, $old, false)) &&
            $old->version->text()->equals($rows->text($row, $old));
    }
}
