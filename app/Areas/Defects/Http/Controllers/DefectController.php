<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Gate;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Defects\Actions\ChangeDefectState;
use LucidStep\App\Areas\Defects\Actions\EditDefect;
use LucidStep\App\Areas\Defects\Actions\FileDefect;
use LucidStep\App\Areas\Defects\Actions\LinkDefect;
use LucidStep\App\Areas\Defects\Actions\LinkSeen;
use LucidStep\App\Areas\Defects\Actions\RelateDefects;
use LucidStep\App\Areas\Defects\Actions\WatchDefect;
use LucidStep\App\Areas\Defects\Data\DefectDetail;
use LucidStep\App\Areas\Defects\Data\DefectMove;
use LucidStep\App\Areas\Defects\Http\Requests\DefectStateRequest;
use LucidStep\App\Areas\Defects\Http\Requests\EditDefectRequest;
use LucidStep\App\Areas\Defects\Http\Requests\FileDefectRequest;
use LucidStep\App\Areas\Defects\Http\Requests\LinkDefectRequest;
use LucidStep\App\Areas\Defects\Http\Requests\RelationRequest;
use LucidStep\App\Areas\Defects\Http\Requests\WatchRequest;
use LucidStep\App\Areas\Defects\Queries\ReadDefect;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Defects\DefectRelation;
use LucidStep\Core\Defects\DefectState;

/**
 * Defects: drafted, filed, linked, moved.
 */
final readonly class DefectController
{
    use AnswersDefect;

    public function __construct(private ReadDefect $read) {}

    #[Post('/projects/{project}/defects', 'File a defect', DefectDetail::class, FileDefectRequest::class, 201)]
    #[Needs(Permission::FileDefects)]
    public function store(FileDefectRequest $request, Project $project, FileDefect $file): JsonResponse
    {
        Gate::authorize('fileDefects', $project);
        $from = $request->filled('attempt_id') ? $this->attempt($project->id, $request->string('attempt_id')->toString()) : null;
        $case = $request->filled('case') ? $this->case($project, $request->string('case')->trim()->upper()->toString()) : null;
        $seen = $request->filled('line_id') ? $this->line($project->id, $request->string('line_id')->toString()) : null;
        $defect = $file($project, $request->person(), $request->filing($from, $case, $seen));

        return $this->answer($defect, 201);
    }

    #[Get('/defects/{defect}', 'A defect with everything about it', DefectDetail::class)]
    #[Needs(Permission::SeeEvidence)]
    public function show(Defect $defect): JsonResponse
    {
        return $this->answer($defect);
    }

    #[
        Post(
            '/defects/{defect}/links',
            'Link a defect to an attempt, to a step, or to what a session saw',
            DefectDetail::class,
            LinkDefectRequest::class,
            201,
        ),
    ]
    #[Needs(Permission::FileDefects)]
    public function link(LinkDefectRequest $request, Defect $defect, LinkDefect $link, LinkSeen $linkSeen): JsonResponse
    {
        Gate::authorize('link', $defect);
        if ($request->filled('line_id')) {
            $line = $this->line($defect->project_id, $request->string('line_id')->toString());
            $repro = $linkSeen->repro($line, $request->person(), $defect);
            $linkSeen->link($defect, $request->person(), $repro, $request->captures());

            return $this->answer($defect, 201);
        }
        $link(
            $defect,
            $request->person(),
            $this->attempt($defect->project_id, $request->string('attempt_id')->toString()),
            $request->integer('round') ?: null,
            $request->integer('step') ?: null,
        );

        return $this->answer($defect, 201);
    }

    #[Post('/defects/{defect}/moves', 'Move a defect to another state', DefectDetail::class, DefectStateRequest::class)]
    #[Needs(Permission::WorkOnDefects)]
    public function move(DefectStateRequest $request, Defect $defect, ChangeDefectState $move): JsonResponse
    {
        Gate::authorize('update', $defect);
        $to = $request->filled('duplicate_of') ? $request->string('duplicate_of')->trim()->upper()->toString() : null;
        $asked = new DefectMove(
            DefectState::from($request->string('state')->toString()),
            $request->string('note')->toString(),
            $request->filled('build_id') ? $request->string('build_id')->toString() : null,
            null === $to ? null : Defect::query()->where('project_id', $defect->project_id)->where('key', $to)->first(),
            DefectState::tryFrom($request->string('seen')->toString()),
            $request->boolean('anyway'),
        );

        return $this->answer($move($defect, $request->person(), $asked, Gate::allows('link', $defect)));
    }

    #[Patch('/defects/{defect}', 'Change what a defect says', DefectDetail::class, EditDefectRequest::class)]
    #[Needs(Permission::WorkOnDefects)]
    public function update(EditDefectRequest $request, Defect $defect, EditDefect $edit): JsonResponse
    {
        Gate::authorize('update', $defect);
        [$was, $is] = $request->edit();

        return $this->answer($edit($defect, $request->person(), $was, $is, Gate::allows('link', $defect)));
    }

    #[Post('/defects/{defect}/relations', 'Say how it stands to another', DefectDetail::class, RelationRequest::class, 201)]
    #[Needs(Permission::WorkOnDefects)]
    public function relate(RelationRequest $request, Defect $defect, RelateDefects $relate): JsonResponse
    {
        Gate::authorize('update', $defect);
        $other = $this->other($defect, $request->string('other')->toString());
        $relate->add($defect, $request->person(), DefectRelation::from($request->string('relation')->toString()), $other);

        return $this->answer($defect, 201);
    }

    #[Delete('/defects/{defect}/relations', 'It stands so to another no more', DefectDetail::class, RelationRequest::class)]
    #[Needs(Permission::WorkOnDefects)]
    public function unrelate(RelationRequest $request, Defect $defect, RelateDefects $relate): JsonResponse
    {
        Gate::authorize('update', $defect);
        $other = $this->other($defect, $request->string('other')->toString());
        $relate->remove($defect, $request->person(), DefectRelation::from($request->string('relation')->toString()), $other);

        return $this->answer($defect);
    }

    #[
        Post(
            '/defects/{defect}/watchers',
            'Let somebody be told of everything that becomes of it',
            DefectDetail::class,
            WatchRequest::class,
            201,
        ),
    ]
    #[Needs(Permission::WorkOnDefects)]
    public function watch(WatchRequest $request, Defect $defect, WatchDefect $watch): JsonResponse
    {
        $watch->watch($defect, [$this->watcher($request, $defect)]);

        return $this->answer($defect, 201);
    }

    #[Delete('/defects/{defect}/watchers', 'Let somebody be told no more', DefectDetail::class, WatchRequest::class)]
    #[Needs(Permission::WorkOnDefects)]
    public function unwatch(WatchRequest $request, Defect $defect, WatchDefect $watch): JsonResponse
    {
        $watch->unwatch($defect, $this->watcher($request, $defect));

        return $this->answer($defect);
    }

    private function watcher(WatchRequest $request, Defect $defect): string
    {
        Gate::authorize('update', $defect);
        $person = $request->filled('person_id') ? $request->string('person_id')->toString() : $request->person()->id;
        // Who is to be told beside oneself is the matter of those who file.
        if ($person !== $request->person()->id) {
            Gate::authorize('link', $defect);
        }

        return $person;
    }

    private function other(Defect $defect, string $key): Defect
    {
        return Defect::query()
            ->where('project_id', $defect->project_id)
            ->where('key', mb_strtoupper(trim($key)))
            ->first() ?? throw ValidationException::withMessages(['other' => 'There is no such defect in this project.']);
    }

    private function case(Project $project, string $key): TestCase
    {
        return TestCase::query()->where('project_id', $project->id)->where('key', $key)->first() ??
            throw ValidationException::withMessages(['case' => 'There is no such case in this project.']);
    }

    private function line(string $project, string $id): SessionLine
    {
        return SessionLine::query()->where('project_id', $project)->find($id) ??
            throw ValidationException::withMessages(['line_id' => 'There is no such line in a session of this project.']);
    }

    private function attempt(string $project, string $id): Attempt
    {
        return ReadDefect::attempt($project, $id) ??
            throw ValidationException::withMessages(['attempt_id' => 'There is no such attempt in this project.']);
    }
}
