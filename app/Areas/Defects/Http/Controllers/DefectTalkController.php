<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Defects\Actions\CommentOnDefect;
use LucidStep\App\Areas\Defects\Actions\RemoveNote;
use LucidStep\App\Areas\Defects\Data\DefectDetail;
use LucidStep\App\Areas\Defects\Http\Requests\CommentRequest;
use LucidStep\App\Areas\Defects\Queries\ReadDefect;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\DefectComment;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\WhyRequest;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\Problems\Problem;
use LucidStep\Core\Access\Permission;

/**
 * What is said of a defect.
 */
final readonly class DefectTalkController
{
    use AnswersDefect;

    public function __construct(private ReadDefect $read) {}

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

    #[
        Post(
            '/defects/{defect}/changes/{defectChange}/removals',
            'Take out what was said at a move and must not be there; the trace stays',
            DefectDetail::class,
            WhyRequest::class,
        ),
    ]
    #[Needs(Permission::RemoveContent)]
    public function removeNote(WhyRequest $request, Defect $defect, string $defectChange, RemoveNote $remove): JsonResponse
    {
        $change = DefectChange::query()->where('defect_id', $defect->id)->find($defectChange);
        $reason = $request->string('reason')->trim()->toString();

        return null === $change
            ? Problem::notFound()->toResponse($request)
            : $this->answer($remove($defect, $change, $request->person(), $reason));
    }
}
