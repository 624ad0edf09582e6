<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Actions\Defects\DraftDefect;
use LucidStep\App\Actions\Defects\FileDefect;
use LucidStep\App\Actions\Defects\FindDefects;
use LucidStep\App\Actions\Defects\LinkDefect;
use LucidStep\App\Actions\Defects\MoveDefect;
use LucidStep\App\Actions\Defects\WriteDefect;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Requests\FileDefectRequest;
use LucidStep\App\Http\Requests\LinkDefectRequest;
use LucidStep\App\Http\Requests\MoveDefectRequest;
use LucidStep\App\Http\Resources\DefectDetail;
use LucidStep\App\Http\Resources\DefectDraft;
use LucidStep\App\Http\Resources\DefectPage;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Project;
use LucidStep\Core\Defects\DefectState;

/**
 * Defects: drafted, filed, linked, moved.
 */
final readonly class DefectController
{
    public function __construct(private WriteDefect $write)
    {
    }

    #[Get('/projects/{project}/defects', 'The defects of a project, newest first', DefectPage::class, query: ['q' => 'Words of the title, or a key', 'state' => 'A state, `open` or `closed`', 'step' => 'Only those linked to this step: attempt:step', 'after' => 'Where the page before ended'])]
    public function index(Request $request, Project $project, FindDefects $find): JsonResponse
    {
        return new JsonResponse($find($project, $request->query->getString('q'), $request->query->getString('state'), $request->query->getInt('after')));
    }

    #[Get('/attempts/{attempt}/defect-draft', 'A defect drafted from what was walked', DefectDraft::class, query: ['round' => 'The round, from 1', 'step' => 'The step, from 1', 'happened' => 'What happened, when it is not yet recorded'])]
    public function draft(Request $request, Attempt $attempt, DraftDefect $draft): JsonResponse
    {
        $number = static fn (string $name): ?int => $request->query->getInt($name) ?: null;

        return new JsonResponse(DefectDraft::from($draft($attempt, $number('round'), $number('step'), $request->query->getString('happened'))));
    }

    #[Post('/projects/{project}/defects', 'File a defect', DefectDetail::class, FileDefectRequest::class, 201)]
    public function store(FileDefectRequest $request, Project $project, FileDefect $file): JsonResponse
    {
        Gate::authorize('fileDefects', $project);
        $from = $request->filled('attempt_id') ? $this->attempt($project->id, $request->string('attempt_id')->toString()) : null;
        $defect = $file($project, $request->person(), $request->safe()->only(['id', 'title', 'body', 'expected', 'actual', 'severity']), $from, $request->integer('round') ?: null, $request->integer('step') ?: null);

        return new JsonResponse(DefectDetail::from($defect, $this->write), 201);
    }

    #[Get('/defects/{defect}', 'A defect with everything about it', DefectDetail::class)]
    public function show(Defect $defect): JsonResponse
    {
        return new JsonResponse(DefectDetail::from($defect, $this->write));
    }

    #[Post('/defects/{defect}/links', 'Link a defect to an attempt or a step', DefectDetail::class, LinkDefectRequest::class, 201)]
    public function link(LinkDefectRequest $request, Defect $defect, LinkDefect $link): JsonResponse
    {
        Gate::authorize('link', $defect);
        $link($defect, $request->person(), $this->attempt($defect->project_id, $request->string('attempt_id')->toString()), $request->integer('round') ?: null, $request->integer('step') ?: null);

        return new JsonResponse(DefectDetail::from($defect, $this->write), 201);
    }

    #[Post('/defects/{defect}/moves', 'Move a defect to another state', DefectDetail::class, MoveDefectRequest::class)]
    public function move(MoveDefectRequest $request, Defect $defect, MoveDefect $move): JsonResponse
    {
        Gate::authorize('update', $defect);
        $build = $request->filled('build_id') ? $request->string('build_id')->toString() : null;
        $moved = $move($defect, $request->person(), DefectState::from($request->string('state')->toString()), $request->string('note')->toString(), $build);

        return new JsonResponse(DefectDetail::from($moved, $this->write));
    }

    private function attempt(string $project, string $id): Attempt
    {
        return Attempt::query()->where('project_id', $project)->find($id) ?? throw ValidationException::withMessages(['attempt_id' => 'There is no such attempt in this project.']);
    }
}
