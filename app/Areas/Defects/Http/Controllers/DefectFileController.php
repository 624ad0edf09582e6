<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Defects\Actions\AttachFile;
use LucidStep\App\Areas\Defects\Data\DefectDetail;
use LucidStep\App\Areas\Defects\Data\DefectFileLine;
use LucidStep\App\Areas\Defects\Http\Requests\DefectFileRequest;
use LucidStep\App\Areas\Defects\Queries\DefectFiles;
use LucidStep\App\Areas\Defects\Queries\ReadDefect;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectFile;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\FileResponse;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\Http\WhyRequest;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\Problems\Problem;
use LucidStep\Core\Access\Permission;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * Files that stand with a defect, and with what is said of it.
 */
final readonly class DefectFileController
{
    use AnswersDefect;

    public function __construct(private ReadDefect $read, private AttachFile $files, private FileResponse $answer) {}

    #[
        Post(
            '/defects/{defect}/files',
            'Add a file to a defect, or to what one is about to say of it',
            DefectFileLine::class,
            DefectFileRequest::class,
            201,
            true,
        ),
    ]
    #[Needs(Permission::WorkOnDefects)]
    public function store(DefectFileRequest $request, Defect $defect): JsonResponse
    {
        Gate::authorize('update', $defect);
        $upload = $request->file('file');
        $upload = $upload instanceof UploadedFile ? $upload : throw new \LogicException('Validation lets a request without a file pass.');
        $given = static fn(string $field): ?string => $request->filled($field) ? $request->string($field)->toString() : null;
        $file = $this->files->add(
            $defect,
            $request->person(),
            $upload,
            trim($given('name') ?? ''),
            $given('id') ?? (string) Str::uuid7(),
            $given('comment'),
        );

        return new JsonResponse(DefectFiles::one($file), 201);
    }

    #[Get('/defect-files/{defectFile}/file', 'The file itself')]
    #[Needs(Permission::SeeEvidence)]
    public function file(DefectFile $defectFile): StreamedResponse|JsonResponse
    {
        $stored = $defectFile->file;

        return null === $stored
            ? Problem::notFound()->toResponse(request())
            : $this->answer->stream($stored->path(), $stored->media_type, $defectFile->name, $stored->isPicture());
    }

    #[Get('/defect-files/{defectFile}/thumbnail', 'A small picture of it; the whole one until that is made')]
    #[Needs(Permission::SeeEvidence)]
    public function thumbnail(DefectFile $defectFile): StreamedResponse|JsonResponse
    {
        return true === $defectFile->file?->isPicture()
            ? $this->answer->thumbnail($defectFile->file, $defectFile->name)
            : Problem::notFound()->toResponse(request());
    }

    #[
        Delete(
            '/defect-files/{defectFile}',
            'Take a file off again: before it is said, or within a quarter of an hour',
            DefectDetail::class,
            StampRequest::class,
        ),
    ]
    #[Needs(Permission::WorkOnDefects)]
    public function takeBack(StampRequest $request, DefectFile $defectFile): JsonResponse
    {
        $this->files->takeBack($defectFile, $request->person());

        return $this->answer($defectFile->defect);
    }

    #[
        Post(
            '/defect-files/{defectFile}/removals',
            'Take a file out that must not be there; the trace stays',
            DefectDetail::class,
            WhyRequest::class,
        ),
    ]
    #[Needs(Permission::RemoveContent)]
    public function remove(WhyRequest $request, DefectFile $defectFile): JsonResponse
    {
        $reason = $request->string('reason')->trim()->toString();

        return $this->answer($this->files->remove($defectFile, $request->person(), $reason)->defect);
    }
}
