<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Actions\UndoBulkEdit;
use LucidStep\App\Areas\Casebook\Exceptions\ImportConflict;
use LucidStep\App\Areas\Casebook\Jobs\ReadImport;
use LucidStep\App\Areas\Casebook\Jobs\RunImport;
use LucidStep\App\Models\BulkAct;
use LucidStep\App\Models\CaseImport;
use LucidStep\App\Models\JobState;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Exchange\CaseColumns;
use LucidStep\Core\Exchange\Unreadable;

/**
 * An import from the upload of its file to its undoing: it is read and shown first, and nothing is written until the person
 * says so.
 */
final readonly class ManageImport
{
    /** Files up to this size are read while the person waits a moment; larger ones by a job. */
    private const AT_ONCE = 400_000;

    public function __construct(
        private Filesystem $files,
        private ImportFile $file,
        private Progress $progress,
        private UndoBulkEdit $undo,
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
                'state' => JobState::Reading,
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
     * @param  list<array{field: string, word: string, value: ?string}>  $words what words of the file mean
     */
    public function map(CaseImport $import, array $mapping, string $layout, array $words): CaseImport
    {
        $this->refuseUnless($import, [JobState::Ready, JobState::Failed], 'changed');
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
        ImportWords::say(Project::query()->findOrFail($import->project_id), $words);
        $import->update(['mapping' => $mapping, 'layout' => $layout, 'state' => JobState::Reading, 'problem' => '']);
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
        $this->refuseUnless($import, [JobState::Ready], 'started');
        $this->refuseIfGone($import);
        if (0 === ($import->facts['creates'] ?? 0) + ($import->facts['changes'] ?? 0)) {
            throw ImportConflict::nothingToDo();
        }
        $import->update(['state' => JobState::Running]);
        RunImport::dispatch($import->id);

        return $import->refresh();
    }

    /**
     * @throws Conflict when the file was dropped: it is kept for a week
     */
    private function refuseIfGone(CaseImport $import): void
    {
        if (!$this->files->exists($import->path)) {
            throw ImportConflict::fileIsGone();
        }
    }

    public function cancel(CaseImport $import): CaseImport
    {
        if (JobState::Running === $import->state) {
            $this->progress->cancel($import->id);
        } elseif (\in_array($import->state, [JobState::Reading, JobState::Ready, JobState::Failed], true)) {
            $import->update(['state' => JobState::Cancelled, 'finished_at' => Carbon::now()]);
            $this->files->delete([$import->path, "{$import->path}.rows"]);
        } else {
            throw ImportConflict::isOver();
        }

        return $import->refresh();
    }

    public function undo(CaseImport $import, Project $project, User $user): CaseImport
    {
        $this->refuseUnless($import, [JobState::Done], 'undone');
        $done = ($this->undo)(BulkAct::query()->findOrFail($import->act_id), $project, $user);
        $kept = array_map(static fn($r): string => $r->key, $done->refused);
        $import->update([
            'state' => JobState::Undone,
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

    /**
     * @param  list<JobState>  $states
     */
    private function refuseUnless(CaseImport $import, array $states, string $what): void
    {
        if (!\in_array($import->state, $states, true)) {
            throw ImportConflict::wrongState($import->state, $what);
        }
    }
}
