<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Arr;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Defects\Actions\ChangeDefectState;
use LucidStep\App\Areas\Defects\Actions\CommentOnDefect;
use LucidStep\App\Areas\Defects\Actions\EditDefect;
use LucidStep\App\Areas\Defects\Actions\FileDefect;
use LucidStep\App\Areas\Defects\Actions\LinkDefect;
use LucidStep\App\Areas\Defects\Data\DefectDetail;
use LucidStep\App\Areas\Defects\Data\DefectMove;
use LucidStep\App\Areas\Defects\Data\DefectPage;
use LucidStep\App\Areas\Defects\Data\LikelyDefect;
use LucidStep\App\Areas\Defects\Http\Requests\CommentRequest;
use LucidStep\App\Areas\Defects\Http\Requests\DefectStateRequest;
use LucidStep\App\Areas\Defects\Http\Requests\EditDefectRequest;
use LucidStep\App\Areas\Defects\Http\Requests\FileDefectRequest;
use LucidStep\App\Areas\Defects\Http\Requests\LinkDefectRequest;
use LucidStep\App\Areas\Defects\Queries\FindDefects;
use LucidStep\App\Areas\Defects\Queries\FindLikely;
use LucidStep\App\Areas\Defects\Queries\ReadDefect;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectComment;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\WhyRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Defects\DefectState;

/**
 * Defects: drafted, filed, linked, moved.
 */
final readonly class DefectController
{
    public function __construct(private ReadDefect $read) {}

    #[
        Get(
            '/projects/{project}/defects',
            'The defects of a project, the newest first',
            DefectPage::class,
            query: [
                'q' => 'Words of the title, or a key',
                'state' => 'A state, `open` or `closed`',
                'severity' => '`critical`, `major`, `minor` or `trivial`',
                'priority' => '`now`, `soon` or `later`',
                'assignee' => 'Whose it is: an id, `me` or `nobody`',
                'reporter' => 'Who filed it: an id or `me`',
                'build' => 'On which build it was met, by id',
                'sort' => '`number`, `title`, `state` or `severity`, backwards with a minus before it',
                'after' => 'Where the page before ended',
            ],
        ),
    ]
    #[Needs(Permission::SeeEvidence)]
    public function index(Request $request, Project $project, FindDefects $find): JsonResponse
    {
        return new JsonResponse(
            $find(
                $project,
                $request->user() instanceof User ? $request->user() : throw new \LogicException('Somebody is signed in.'),
                $request->query->getString('q'),
                $request->query->getString('state'),
                array_map($request->query->getString(...), array_combine(FindDefects::NARROWED, FindDefects::NARROWED)),
                $request->query->getString('sort'),
                $request->query->getString('after'),
            ),
        );
    }

    #[
        Get(
            '/projects/{project}/likely-defects',
            'Defects that may be the same as one that is being written',
            LikelyDefect::class,
            list: true,
            query: [
                'title' => 'Its title so far',
                'actual' => 'What happened',
                'attempt' => 'The attempt in which it was met',
                'step' => 'At which of its steps, from 1',
            ],
        ),
    ]
    #[Needs(Permission::SeeEvidence)]
    public function likely(Request $request, Project $project, FindLikely $find): JsonResponse
    {
        $text = static fn(string $name): string => mb_substr($request->query->getString($name), 0, 2000);
        $attempt = $request->query->getString('attempt');

        return new JsonResponse(
            $find(
                $project,
                $text('title'),
                $text('actual'),
                Str::isUuid($attempt) ? $this->read->attempt($project->id, $attempt) : null,
                $request->query->getInt('step') ?: null,
            ),
        );
    }

    #[Post('/projects/{project}/defects', 'File a defect', DefectDetail::class, FileDefectRequest::class, 201)]
    #[Needs(Permission::FileDefects)]
    public function store(FileDefectRequest $request, Project $project, FileDefect $file): JsonResponse
    {
        Gate::authorize('fileDefects', $project);
        $from = $request->filled('attempt_id') ? $this->attempt($project->id, $request->string('attempt_id')->toString()) : null;
        $defect = $file(
            $project,
            $request->person(),
            ['title' => $request->string('title')->toString()] +
                Arr::only((array) $request->validated(), ['id', 'body', 'expected', 'actual', 'severity']),
            $from,
            $request->integer('round') ?: null,
            $request->integer('step') ?: null,
        );

        return $this->answer($defect, 201);
    }

    #[Get('/defects/{defect}', 'A defect with everything about it', DefectDetail::class)]
    #[Needs(Permission::SeeEvidence)]
    public function show(Defect $defect): JsonResponse
    {
        return $this->answer($defect);
    }

    #[Post('/defects/{defect}/links', 'Link a defect to an attempt or a step', DefectDetail::class, LinkDefectRequest::class, 201)]
    #[Needs(Permission::FileDefects)]
    public function link(LinkDefectRequest $request, Defect $defect, LinkDefect $link): JsonResponse
    {
        Gate::authorize('link', $defect);
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

    #[Post('/defects/{defect}/comments', 'Say something of a defect', DefectDetail::class, CommentRequest::class, 201)]
    #[Needs(Permission::WorkOnDefects)]
    public function comment(CommentRequest $request, Defect $defect, CommentOnDefect $comments): JsonResponse
    {
        Gate::authorize('update', $defect);
        $id = $request->filled('id') ? $request->string('id')->toString() : null;
        $comments->write($defect, $request->person(), $request->string('text')->trim()->toString(), $id);

        return $this->answer($defect, 201);
    }

    #[Patch('/defect-comments/{comment}', 'Mend what one said, within a quarter of an hour', DefectDetail::class, CommentRequest::class)]
    #[Needs(Permission::WorkOnDefects)]
    public function mend(CommentRequest $request, DefectComment $comment, CommentOnDefect $comments): JsonResponse
    {
        return $this->answer($comments->mend($comment, $request->person(), $request->string('text')->trim()->toString())->defect);
    }

    #[
        Post(
            '/defect-comments/{comment}/removals',
            'Take out what must not be there; the trace stays',
            DefectDetail::class,
            WhyRequest::class,
        ),
    ]
    #[Needs(Permission::RemoveContent)]
    public function removeComment(WhyRequest $request, DefectComment $comment, CommentOnDefect $comments): JsonResponse
    {
        $reason = $request->string('reason')->trim()->toString();

        return $this->answer($comments->remove($comment, $request->person(), $reason)->defect);
    }

    private function answer(Defect $defect, int $status = 200): JsonResponse
    {
        return new JsonResponse(($this->read)($defect, Gate::allows('link', $defect)), $status);
    }

    private function attempt(string $project, string $id): Attempt
    {
        return $this->read->attempt($project, $id) ??
            throw ValidationException::withMessages(['attempt_id' => 'There is no such attempt in this project.']);
    }
}
