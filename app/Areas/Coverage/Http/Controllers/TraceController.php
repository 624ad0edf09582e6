<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Coverage\Data\Trace;
use LucidStep\App\Areas\Coverage\Data\TraceKind;
use LucidStep\App\Areas\Coverage\Exchange\WriteTrace;
use LucidStep\App\Areas\Coverage\Http\Requests\TraceRequest;
use LucidStep\App\Areas\Coverage\Queries\ReadTrace;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\Costly;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\Core\Access\Permission;

/**
 * What a thing is tied to, from what must hold down to the picture that shows it.
 */
final readonly class TraceController
{
    public function __construct(private ReadTrace $read, private Memberships $memberships) {}

    #[
        Get(
            '/projects/{project}/trace',
            'What a thing is tied to: requirement, case, entry, attempt, step, defect, evidence, session',
            Trace::class,
            query: TraceRequest::QUERY,
        ),
    ]
    #[Needs(Permission::Read)]
    public function show(TraceRequest $request, Project $project): JsonResponse
    {
        return new JsonResponse(($this->read)($project, ...$this->asked($request, $project)));
    }

    #[Get('/projects/{project}/trace-export', 'The same as a sheet (CSV), with all its rows', query: TraceRequest::QUERY)]
    #[Costly]
    #[Needs(Permission::Read)]
    public function export(TraceRequest $request, Project $project): Response
    {
        $parts = $this->read->parts($project, ...$this->asked($request, $project));
        $name = preg_replace('/[^A-Za-z0-9.-]+/', '-', $parts->current()->of->key);

        return new Response(WriteTrace::csv($parts), 200, [
            'Content-Type' => 'text/csv; charset=utf-8',
            'Content-Disposition' => "attachment; filename=\"{$project->code}-trace-{$name}.csv\"",
            'Content-Security-Policy' => "default-src 'none'; sandbox",
        ]);
    }

    /**
     * @return array{TraceKind, string, bool, bool} kind and id, whether plans, and whether defects and evidence may be told of
     */
    private function asked(TraceRequest $request, Project $project): array
    {
        return [
            $request->kind(),
            $request->id(),
            Gate::allows('lead', $project),
            $this->memberships->may($request->person(), $project->id, Permission::SeeEvidence),
        ];
    }
}
