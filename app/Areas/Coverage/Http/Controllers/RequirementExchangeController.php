<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Coverage\Actions\ImportRequirements;
use LucidStep\App\Areas\Coverage\Data\RequirementColumn;
use LucidStep\App\Areas\Coverage\Data\RequirementImportLine;
use LucidStep\App\Areas\Coverage\Data\RequirementImportResult;
use LucidStep\App\Areas\Coverage\Data\RequirementImportRow;
use LucidStep\App\Areas\Coverage\Exchange\WriteRequirements;
use LucidStep\App\Areas\Coverage\Http\Requests\ImportRequirementsRequest;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Requirement;
use LucidStep\App\Models\RequirementImport;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\Costly;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Coverage\ImportedRequirement;

/**
 * Requirements in and out.
 */
final readonly class RequirementExchangeController
{
    /** As many imports are shown. */
    private const MOST = 20;

    public function __construct(private ImportRequirements $imports) {}

    #[
        Get(
            '/projects/{project}/requirement-export',
            'The requirements as a file that can be read again to the same',
            query: ['format' => '`csv`, `xlsx`, `json` or `reqif` (ReqIF 1.2)'],
        ),
    ]
    #[Costly]
    #[Needs(Permission::Read)]
    public function export(Request $request, Project $project, WriteRequirements $write): Response
    {
        $asked = $request->query->getString('format', 'csv');
        $format = \array_key_exists($asked, WriteRequirements::TYPES)
            ? $asked
            : throw ValidationException::withMessages(['format' => 'One of csv, xlsx, json, reqif.']);

        return new Response($write($project, $format), 200, [
            'Content-Type' => WriteRequirements::TYPES[$format],
            'Content-Disposition' => "attachment; filename=\"{$project->code}-requirements.{$format}\"",
            'Content-Security-Policy' => "default-src 'none'; sandbox",
        ]);
    }

    #[Get('/projects/{project}/requirement-imports', 'Imports of requirements, the newest first', RequirementImportLine::class, true)]
    #[Needs(Permission::Read)]
    public function index(Project $project): JsonResponse
    {
        return new JsonResponse(
            RequirementImport::query()
                ->where('project_id', $project->id)
                ->orderByDesc('id')
                ->limit(self::MOST)
                ->get()
                ->map(static fn(RequirementImport $i): RequirementImportLine => RequirementImportLine::of($i))
                ->all(),
        );
    }

    #[Costly]
    #[
        Post(
            '/projects/{project}/requirement-imports',
            'Look at requirements of a file, or take them in',
            RequirementImportResult::class,
            ImportRequirementsRequest::class,
            200,
            true,
        ),
    ]
    #[Needs(Permission::WriteCases)]
    public function import(ImportRequirementsRequest $request, Project $project): JsonResponse
    {
        ['columns' => $columns, 'meanings' => $meanings, 'records' => $records] = $request->content();
        [$import, $rows] = $request->boolean('apply')
            ? $this->imports->apply($project, $request->person(), $records, $request->name())
            : [null, $this->imports->plan($project, $records)];
        $keys = Requirement::query()->where('project_id', $project->id)->pluck('key', 'id')->map(strval(...))->all();

        return new JsonResponse(
            new RequirementImportResult(
                array_map(static fn(string $n, string $m): RequirementColumn => new RequirementColumn($n, $m), $columns, $meanings),
                array_map(static fn(ImportedRequirement $r): RequirementImportRow => RequirementImportRow::of($r, $keys, $rows), $rows),
                null === $import ? null : RequirementImportLine::of($import),
            ),
        );
    }

    #[
        Post(
            '/requirement-imports/{requirementImport}/undo',
            'Take an import back; what somebody changed since stays',
            RequirementImportLine::class,
            StampRequest::class,
        ),
    ]
    #[Needs(Permission::WriteCases)]
    public function undo(StampRequest $request, RequirementImport $requirementImport): JsonResponse
    {
        $stay = $this->imports->undo($requirementImport, $request->person());

        return new JsonResponse(RequirementImportLine::of($requirementImport->refresh(), $stay));
    }
}
