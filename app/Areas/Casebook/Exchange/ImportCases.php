<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Actions\BulkEditCases;
use LucidStep\App\Areas\Casebook\Actions\CaseFields;
use LucidStep\App\Areas\Casebook\Actions\CaseWriterFactory;
use LucidStep\App\Areas\Casebook\Actions\SaveRequirements;
use LucidStep\App\Areas\Casebook\Jobs\FindSimilarCasesAmong;
use LucidStep\App\Areas\Casebook\Jobs\ReadImport;
use LucidStep\App\Areas\Casebook\Jobs\RunImport;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\BulkAct;
use LucidStep\App\Models\CaseImport;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Exchange\CaseColumns;
use LucidStep\Core\Exchange\CaseReader;
use LucidStep\Core\Exchange\CaseRow;
use LucidStep\Core\Exchange\ImportContext;
use LucidStep\Core\Exchange\JsonCases;
use LucidStep\Core\Exchange\ReadError;
use LucidStep\Core\Exchange\Unreadable;

/**
 * Brings a file of cases in: it is read and shown first, nothing is written until the person says so, and then all of
 * it at once; what was brought in can be undone as one act.
 */
final readonly class ImportCases
{
    /** Files up to this size are read while the person waits a moment; larger ones by a job. */
    private const AT_ONCE = 400_000;

    private const SAMPLES = 4;

    /** So many cases of the file are listed, those that are refused first. */
    private const REPORTED = 1000;

    private const CHUNK = 200;

    public function __construct(
        private Filesystem $files,
        private ImportFile $file,
        private CaseWriterFactory $writers,
        private Progress $progress,
        private BulkEditCases $acts,
        private ImportReferenceData $prelude,
        private SaveRequirements $requirements,
    ) {}

    public function upload(Project $project, User $author, UploadedFile $upload): CaseImport
    {
        $extension = mb_strtolower($upload->getClientOriginalExtension());
        $format = match ($extension) {
            'csv', 'tsv', 'txt' => 'csv',
            'xlsx', 'json' => $extension,
            default => throw ValidationException::withMessages([
                'file' => 'Taken are CSV, XLSX and JSON files. An older workbook: save it as XLSX or CSV.',
            ]),
        };
        if (0 === (int) $upload->getSize()) {
            throw ValidationException::withMessages(['file' => 'The file is empty.']);
        }
        $id = (string) Str::uuid7();
        $path = "imports/{$id}.{$format}";
        $this->files->writeStream(
            $path,
            fopen((string) $upload->getRealPath(), 'r') ?: throw new \RuntimeException('The upload cannot be read.'),
        );
        $import = CaseImport::query()
            ->create([
                'id' => $id,
                'project_id' => $project->id,
                'author_id' => $author->id,
                'name' => mb_strimwidth($upload->getClientOriginalName(), 0, 200, '…'),
                'state' => 'reading',
                'format' => $format,
                'path' => $path,
                'created_at' => Carbon::now(),
            ])
            ->refresh();
        $this->readSoon($import, (int) $upload->getSize());

        return $import->refresh();
    }

    /**
     * @param  list<?string>  $mapping
     * @param  'step'|'case'  $layout
     */
    public function map(CaseImport $import, array $mapping, string $layout): CaseImport
    {
        $this->refuseUnless($import, ['ready', 'failed'], 'changed');
        if ('json' === $import->format || \count($mapping) !== \count($import->header)) {
            throw ValidationException::withMessages(['mapping' => 'The mapping does not fit the columns of the file.']);
        }
        $twice = array_filter(array_count_values(array_filter($mapping, is_string(...))), static fn(int $n): bool => $n > 1);
        if ([] !== $twice) {
            throw ValidationException::withMessages([
                'mapping' => \sprintf('"%s" is given to more than one column.', array_key_first($twice)),
            ]);
        }
        if (!\in_array('title', $mapping, true) && !\in_array('key', $mapping, true)) {
            throw ValidationException::withMessages(['mapping' => 'One column must be the title, or the key of cases to be changed.']);
        }
        $this->refuseIfGone($import);
        $import->update(['mapping' => $mapping, 'layout' => $layout, 'state' => 'reading', 'problem' => '']);
        DB::table('import_mappings')->upsert(
            [
                [
                    'project_id' => $import->project_id,
                    'fingerprint' => CaseColumns::fingerprint($import->header),
                    'mapping' => json_encode($mapping, \JSON_THROW_ON_ERROR),
                    'layout' => $layout,
                ],
            ],
            ['project_id', 'fingerprint'],
            ['mapping', 'layout'],
        );
        $this->readSoon($import, (int) $this->files->size($import->path));

        return $import->refresh();
    }

    public function start(CaseImport $import): CaseImport
    {
        $this->refuseUnless($import, ['ready'], 'started');
        $this->refuseIfGone($import);
        if (0 === ($import->facts['creates'] ?? 0) + ($import->facts['changes'] ?? 0)) {
            throw new Conflict('nothing-to-do', 'Nothing in this file would be created or changed.');
        }
        $import->update(['state' => 'running']);
        RunImport::dispatch($import->id);

        return $import->refresh();
    }

    /**
     * @throws Conflict when the file was dropped: it is kept for a week
     */
    private function refuseIfGone(CaseImport $import): void
    {
        if (!$this->files->exists($import->path)) {
            throw new Conflict('file-gone', 'The file of this import is not kept any more. Choose it again.');
        }
    }

    public function cancel(CaseImport $import): CaseImport
    {
        if ('running' === $import->state) {
            $this->progress->cancel($import->id);
        } elseif (\in_array($import->state, ['reading', 'ready', 'failed'], true)) {
            $import->update(['state' => 'cancelled', 'finished_at' => Carbon::now()]);
            $this->files->delete([$import->path, "{$import->path}.rows"]);
        } else {
            throw new Conflict('finished', 'This import is over. What it brought in can be undone.');
        }

        return $import->refresh();
    }

    public function undo(CaseImport $import, Project $project, User $user): CaseImport
    {
        $this->refuseUnless($import, ['done'], 'undone');
        $done = $this->acts->undo(BulkAct::query()->findOrFail($import->act_id), $project, $user);
        $kept = array_map(static fn($r): string => $r->key, $done->refused);
        $import->update([
            'state' => 'undone',
            'problem' =>
                [] === $kept
                    ? ''
                    : \sprintf(
                        '%d %s changed since and stay as they are: %s.',
                        \count($kept),
                        1 === \count($kept) ? 'case was' : 'cases were',
                        implode(', ', \array_slice($kept, 0, 20)),
                    ),
        ]);

        return $import->refresh();
    }

    /**
     * Reads the whole file and says what would become of each case in it; writes nothing to the casebook.
     */
    public function read(CaseImport $import): void
    {
        try {
            $this->analyse($import);
        } catch (Unreadable $e) {
            $import->update([
                'state' => 'failed',
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
                (new ProjectLists($project))->addTypes(array_map(strval(...), $import->facts['new_types'] ?? []));
                $rows = new ImportRows($project, $author, $this->requirements, $requirements);
                $writer = $this->writers->for($project, $author, max(1, (int) ($import->facts['creates'] ?? 1)));
                $done = 0;
                $made = [];
                foreach ($this->chunks($import, $rows->surroundings(), $json) as $chunk) {
                    $existing = $rows->existing($chunk, true);
                    foreach ($chunk as $row) {
                        $old = null === $row->key ? null : $existing->get($row->key);
                        if ([] !== $row->errors || null !== $old?->binned_at) {
                            continue;
                        }
                        if (null === $old) {
                            $new = $writer->add($rows->text($row, null), $rows->fields($row, null, true), 'imported', [
                                'comment' => $import->name,
                            ]);
                            $made[$new['id']] = ['revision' => 1, 'before' => [], 'made' => true];

                            continue;
                        }
                        $before = CaseFields::of($old);
                        $text = $old->version->text();
                        $after = $rows->fields($row, $old, true);
                        if ($writer->change($old, $rows->text($row, $old), $after, 'imported', ['comment' => $import->name])) {
                            $made[$old->id] = [
                                'revision' => $old->revision,
                                'before' => [
                                    ...array_map(static fn(array $c): mixed => $c[0], $before->changesTo($after)),
                                    'text' => $text->toArray(),
                                ],
                            ];
                        }
                    }
                    $this->progress->at($import->id, $done += \count($chunk));
                }
                $writer->end();
                foreach (array_chunk(array_keys($made), FindSimilarCasesAmong::MANY) as $some) {
                    FindSimilarCasesAmong::dispatch($some)->afterCommit();
                }

                return $this->acts->remember($project, $author, "Brought in {$import->name}", $made);
            });
            $import->update(['state' => 'done', 'act_id' => $act, 'finished_at' => Carbon::now()]);
        } catch (Cancelled) {
            $import->update(['state' => 'cancelled', 'problem' => 'Stopped by you. Nothing was written.', 'finished_at' => Carbon::now()]);
        } catch (Unreadable $e) {
            $import->update(['state' => 'failed', 'problem' => $e->getMessage() . ' Nothing was written.', 'finished_at' => Carbon::now()]);
        }
        $this->files->delete([$import->path, "{$import->path}.rows"]);
    }

    private function readSoon(CaseImport $import, int $bytes): void
    {
        if ('xlsx' === $import->format) {
            try {
                // What counts is how large it is unpacked.
                $bytes = intdiv($this->file->unpackedBytes($import), 4);
            } catch (Unreadable) {
                $bytes = 0;
            }
        }
        $bytes <= self::AT_ONCE ? ReadImport::dispatchSync($import->id) : ReadImport::dispatch($import->id);
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
        if (null === $json) {
            $facts = [...$facts, ...$this->survey($import, $project)];
        }
        $around = $rows->surroundings($json);
        $refused = $listed = $types = $keys = [];
        foreach ($this->chunks($import, $around, $json) as $chunk) {
            $existing = $rows->existing($chunk, false);
            foreach ($chunk as $row) {
                $old = null === $row->key ? null : $existing->get($row->key);
                $reasons = array_map(
                    static fn(ReadError $e): string => ($e->row !== $row->row ? "Row {$e->row}: " : '') .
                        (null === $e->column ? '' : "{$e->column}: ") .
                        $e->message,
                    $row->errors,
                );
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
        $facts['new_types'] = array_map(strval(...), array_keys($types));
        if (0 === $facts['rows']) {
            throw Unreadable::because('There is no case in this file.');
        }
        $import->update([
            'state' => 'ready',
            'facts' => $facts,
            'total' => $facts['rows'],
            'report' => \array_slice([...$refused, ...$listed], 0, self::REPORTED),
        ]);
    }

    /**
     * Reads the header, some values, and how the columns seem to be meant, unless the person has said so.
     *
     * @return array{charset: string, separator: string}
     */
    private function survey(CaseImport $import, Project $project): array
    {
        $file = $this->file->rows($import);
        $header = [];
        $first = $samples = [];
        foreach ($file->rows() as $number => $cells) {
            if ([] === $header) {
                $header = $cells;
                if (\count($header) > ImportFile::MOST_COLUMNS) {
                    throw Unreadable::because(
                        \sprintf('The file has %d columns; at most %d are read.', \count($header), ImportFile::MOST_COLUMNS),
                    );
                }

                continue;
            }
            $first[$number] = $cells;
            if (\count($first) >= 500) {
                break;
            }
        }
        foreach (array_keys($header) as $at) {
            $values = array_values(
                array_filter(
                    array_map(static fn(array $c): string => trim($c[$at] ?? ''), $first),
                    static fn(string $v): bool => '' !== $v,
                ),
            );
            $samples[] = array_map(static fn(string $v): string => mb_strimwidth($v, 0, 80, '…'), \array_slice($values, 0, self::SAMPLES));
        }
        if ($import->header !== $header) {
            $known = DB::table('import_mappings')
                ->where('project_id', $project->id)
                ->where('fingerprint', CaseColumns::fingerprint($header))
                ->first();
            $mapping = null === $known ? null : json_decode($known->mapping, true);
            if (!\is_array($mapping) || \count($mapping) !== \count($header)) {
                $mapping = CaseColumns::guess(
                    $header,
                    array_map(static fn($f): string => $f->name, array_values((new ProjectLists($project))->fields())),
                );
            }
            $import->fill([
                'header' => array_map(static fn(string $h): string => mb_strimwidth($h, 0, 120, '…'), $header),
                'mapping' => $mapping,
                'layout' => $known->layout ?? CaseReader::layoutOf($first, $mapping),
            ]);
        }
        $import->fill(['samples' => $samples])->save();
        if (!\in_array('title', $import->mapping, true) && !\in_array('key', $import->mapping, true)) {
            throw Unreadable::because('No column seems to be the title. Say below which one is.');
        }

        return ['charset' => $file->charset, 'separator' => $file->separator];
    }

    /**
     * @return \Generator<int, list<CaseRow>>
     */
    private function chunks(CaseImport $import, ImportContext $around, ?JsonCases $json): \Generator
    {
        if (null !== $json) {
            $cases = $json->cases($around);
        } else {
            $cases = (new CaseReader($import->mapping, $import->layout, $around))->cases(
                (function () use ($import): \Generator {
                    $header = true;
                    foreach ($this->file->rows($import)->rows() as $number => $cells) {
                        if (!$header) {
                            yield $number => $cells;
                        }
                        $header = false;
                    }
                })(),
            );
        }
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

    private function isSame(ImportRows $rows, CaseRow $row, TestCase $old): bool
    {
        return [] === CaseFields::of($old)->changesTo($rows->fields($row, $old, false)) &&
            $old->version->text()->equals($rows->text($row, $old));
    }

    /**
     * @param  list<string>  $states
     */
    private function refuseUnless(CaseImport $import, array $states, string $what): void
    {
        if (!\in_array($import->state, $states, true)) {
            throw new Conflict('wrong-state', "This import is {$import->state}; it cannot be {$what} now.", ['state' => $import->state]);
        }
    }
}
