<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Controllers;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Casebook\Exchange\ManageImport;
use LucidStep\App\Areas\Casebook\Exchange\Progress;
use LucidStep\App\Areas\Casebook\Exchange\RequestExport;
use LucidStep\App\Areas\Casebook\Http\Requests\ExportRequest;
use LucidStep\App\Areas\Casebook\Http\Requests\ImportRequest;
use LucidStep\App\Areas\Casebook\Http\Requests\MappingRequest;
use LucidStep\App\Areas\Casebook\Http\Resources\ExportState;
use LucidStep\App\Areas\Casebook\Http\Resources\ImportRow;
use LucidStep\App\Areas\Casebook\Http\Resources\ImportState;
use LucidStep\App\Areas\Casebook\Http\Resources\ImportWord;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Areas\Notices\Actions\ReportStandstill;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\CaseExport;
use LucidStep\App\Models\CaseImport;
use LucidStep\App\Models\JobState;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\AllowedInArchive;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Http\Costly;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\Problems\Problem;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Exchange\CaseColumns;
use LucidStep\Core\Exchange\CaseReader;
use LucidStep\Core\Exchange\CaseSheet;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * Cases in and out.
 */
final class CaseExchangeController
{
    public function __construct(
        private readonly ManageImport $imports,
        private readonly Progress $progress,
        private readonly Filesystem $files,
        private readonly ReportStandstill $standstill,
    ) {}

    #[Costly]
    #[
        Post(
            '/projects/{project}/case-imports',
            'Read a file of cases: CSV, XLSX or JSON. Nothing is written yet',
            ImportState::class,
            ImportRequest::class,
            201,
            true,
        ),
    ]
    #[Needs(Permission::WriteCases)]
    public function upload(ImportRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('writeCases', $project);
        $file = $request->file('file');

        return new JsonResponse(
            $this->state(
                $this->imports->upload(
                    $project,
                    $request->person(),
                    $file instanceof UploadedFile ? $file : throw new \LogicException('Validation lets a request without a file pass.'),
                ),
            ),
            201,
        );
    }

    #[Get('/case-imports/{import}', 'What a file holds, and how far its import is', ImportState::class)]
    public function show(CaseImport $import): JsonResponse
    {
        return new JsonResponse($this->state($import));
    }

    #[Costly]
    #[Post('/case-imports/{import}/mapping', 'Say what the columns are; the file is read again', ImportState::class, MappingRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function map(MappingRequest $request, CaseImport $import): JsonResponse
    {
        $this->mine($request->person()->id, $import);

        return new JsonResponse(
            $this->state(
                $this->imports->map(
                    $import,
                    array_values((array) $request->validated('mapping')),
                    'case' === $request->validated('layout') ? 'case' : 'step',
                    $request->words(),
                ),
            ),
        );
    }

    #[Post('/case-imports/{import}/start', 'Bring the cases in', ImportState::class, StampRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function start(StampRequest $request, CaseImport $import): JsonResponse
    {
        $this->mine($request->person()->id, $import);

        return new JsonResponse($this->state($this->imports->start($import)));
    }

    #[Post('/case-imports/{import}/cancel', 'Stop; nothing is written', ImportState::class, StampRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function cancel(StampRequest $request, CaseImport $import): JsonResponse
    {
        $this->mine($request->person()->id, $import);

        return new JsonResponse($this->state($this->imports->cancel($import)));
    }

    #[Post('/case-imports/{import}/undo', 'Undo an import as a whole', ImportState::class, StampRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function undo(StampRequest $request, CaseImport $import): JsonResponse
    {
        $this->mine($request->person()->id, $import);

        return new JsonResponse($this->state($this->imports->undo($import, ProjectLookup::find($import->project_id), $request->person())));
    }

    #[
        Get(
            '/projects/{project}/case-template',
            'An empty CSV with every column, and one case as an example',
            query: ['layout' => 'step or case'],
        ),
    ]
    public function template(Request $request, Project $project): StreamedResponse
    {
        $layout = CaseReader::BY_CASE === $request->query->getString('layout') ? CaseReader::BY_CASE : CaseReader::BY_STEP;
        $header = (new CaseSheet(
            $layout,
            array_values(array_map(static fn($f): string => $f->name, (new ProjectLists($project))->fields())),
        ))->header();
        $example = [
            'title' => 'An example to replace',
            'folder' => 'Outer folder / Inner folder',
            'priority' => 'high',
            'labels' => 'first, second',
            'estimate' => '5m',
            'action' => CaseReader::BY_CASE === $layout ? "1. Do this\n2. Then this" : 'Do this',
            'data' => '',
            'expected' => CaseReader::BY_CASE === $layout ? "1. See that\n2. And that" : 'See that',
        ];

        return new StreamedResponse(
            static function () use ($header, $example, $layout): void {
                $out = fopen('php://output', 'w') ?: throw new \RuntimeException('No output.');
                fwrite($out, "\xEF\xBB\xBF");
                fputcsv($out, $header, ',', '"', '', "\r\n");
                fputcsv($out, array_map(static fn(string $c): string => $example[$c] ?? '', $header), ',', '"', '', "\r\n");
                if (CaseReader::BY_STEP === $layout) {
                    fputcsv(
                        $out,
                        array_map(static fn(string $c): string => ['action' => 'Then this', 'expected' => 'And that'][$c] ?? '', $header),
                        ',',
                        '"',
                        '',
                        "\r\n",
                    );
                }
            },
            200,
            [
                'Content-Type' => 'text/csv; charset=utf-8',
                'Content-Disposition' => HeaderUtils::makeDisposition('attachment', 'cases-template.csv'),
            ],
        );
    }

    #[Costly]
    #[Post('/projects/{project}/case-exports', 'Export cases', ExportState::class, ExportRequest::class, 201)]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function export(ExportRequest $request, Project $project, RequestExport $export): JsonResponse
    {
        $user = $request->person();
        $made = $export(
            $project,
            $user,
            $request->string('format')->toString(),
            CaseFilter::from($project, (array) $request->validated('filter'), $user->id),
            ['layout' => $request->validated('layout'), 'expand' => $request->boolean('expand')],
        );

        return new JsonResponse($this->exportState($made), 201);
    }

    #[Get('/case-exports/{export}', 'How far an export is', ExportState::class)]
    public function exported(CaseExport $export): JsonResponse
    {
        return new JsonResponse($this->exportState($export));
    }

    #[Post('/case-exports/{export}/cancel', 'Stop an export', ExportState::class, StampRequest::class)]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function stopExport(StampRequest $request, CaseExport $export): JsonResponse
    {
        // A colleague's is stopped by leads alone.
        if ($export->author_id !== $request->person()->id) {
            Gate::authorize('lead', ProjectLookup::find($export->project_id));
        }
        $this->progress->cancel($export->id);

        return new JsonResponse($this->exportState($export));
    }

    #[Get('/case-exports/{export}/file', 'The file')]
    public function file(CaseExport $export): StreamedResponse|JsonResponse
    {
        $stream = JobState::Done === $export->state && $this->files->exists($export->path) ? $this->files->readStream($export->path) : null;
        if (null === $stream) {
            return Problem::notFound()->toResponse(request());
        }
        $types = [
            'csv' => 'text/csv; charset=utf-8',
            'xlsx' => 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
            'json' => 'application/json',
            'md' => 'text/markdown; charset=utf-8',
            'html' => 'text/html; charset=utf-8',
        ];

        return new StreamedResponse(
            static function () use ($stream): void {
                fpassthru($stream);
            },
            200,
            [
                'Content-Type' => $types[$export->format],
                'Content-Disposition' => HeaderUtils::makeDisposition('attachment', $this->name($export)),
                'Content-Security-Policy' => "default-src 'none'; sandbox",
            ],
        );
    }

    private function mine(string $user, CaseImport $import): void
    {
        Gate::authorize($import->author_id === $user ? 'writeCases' : 'lead', ProjectLookup::find($import->project_id));
    }

    private function name(CaseExport $export): string
    {
        return 'casebook-' .
            mb_strtolower(ProjectLookup::find($export->project_id)->code) .
            '-' .
            $export->created_at->format('Y-m-d') .
            ".{$export->format}";
    }

    private function exportState(CaseExport $e): ExportState
    {
        return new ExportState(
            $e->id,
            $e->state->value,
            $e->format,
            $this->name($e),
            JobState::Done === $e->state ? $e->total : $this->progress->of($e->id),
            $e->total,
            $e->bytes,
            $e->problem,
            ($this->standstill)($e->project_id, JobState::Running === $e->state),
        );
    }

    private function state(CaseImport $i): ImportState
    {
        $n = static fn(string $k): int => (int) ($i->facts[$k] ?? 0);
        $fields = array_values(
            array_map(
                static fn($f): string => CaseColumns::CUSTOM . $f->name,
                (new ProjectLists(ProjectLookup::find($i->project_id)))->fields(),
            ),
        );

        return new ImportState(
            $i->id,
            $i->name,
            $i->state->value,
            $i->format,
            $i->header,
            $i->samples,
            $i->mapping,
            $i->layout,
            (string) ($i->facts['charset'] ?? ''),
            (string) ($i->facts['separator'] ?? ''),
            $n('rows'),
            $n('creates'),
            $n('changes'),
            $n('refuses'),
            $n('same'),
            array_values(array_map(strval(...), (array) ($i->facts['new_types'] ?? []))),
            array_values(array_map(strval(...), (array) ($i->facts['left_out'] ?? []))),
            array_values(array_map(static fn(array $w): ImportWord => new ImportWord(...$w), (array) ($i->facts['words'] ?? []))),
            JobState::Done === $i->state ? $i->total : $this->progress->of($i->id),
            $i->total,
            $i->problem,
            array_map(
                static fn(array $r): ImportRow => new ImportRow(
                    (int) $r['row'],
                    (string) $r['is'],
                    $r['key'] ?? null,
                    (string) $r['title'],
                    (int) $r['steps'],
                    array_values((array) $r['reasons']),
                ),
                $i->report,
            ),
            [...array_keys(CaseColumns::TARGETS), ...$fields],
            JobState::Done === $i->state && null !== $i->act_id,
            ($this->standstill)($i->project_id, \in_array($i->state, [JobState::Reading, JobState::Running], true)),
        );
    }
}
