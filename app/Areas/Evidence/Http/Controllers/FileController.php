<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Evidence\Actions\IgnoreRegions;
use LucidStep\App\Areas\Evidence\Actions\StoreProjectFile;
use LucidStep\App\Areas\Evidence\Http\Requests\FileRequest;
use LucidStep\App\Areas\Evidence\Http\Requests\RegionsRequest;
use LucidStep\App\Areas\Evidence\Http\Resources\StoredFileLine;
use LucidStep\App\Areas\Evidence\Queries\ProjectFiles;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\FileResponse;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\App\Support\Problems\Problem;
use LucidStep\Core\Access\Permission;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * Files that cases and routines show.
 */
final class FileController
{
    public function __construct(private readonly FileResponse $answer, private readonly ProjectFiles $files) {}

    #[
        Post(
            '/projects/{project}/files',
            'Keep a picture or a text for a step or a case',
            StoredFileLine::class,
            FileRequest::class,
            201,
            true,
        ),
    ]
    #[Needs(Permission::Record)]
    public function store(FileRequest $request, Project $project, StoreProjectFile $store): JsonResponse
    {
        Gate::authorize('writeCases', $project);
        $upload = $request->file('file');
        $upload = $upload instanceof UploadedFile ? $upload : throw new \LogicException('Validation lets a request without a file pass.');
        $file = $store($project, $request->person(), $upload);

        return new JsonResponse(
            new StoredFileLine(
                $file->sha256,
                $request->string('name', $upload->getClientOriginalName())->toString(),
                $file->width,
                $file->height,
            ),
            201,
        );
    }

    #[Get('/projects/{project}/files/{sha256}', 'The file itself')]
    public function show(Project $project, string $sha256): StreamedResponse|JsonResponse
    {
        $file = $this->find($project, $sha256);

        return null === $file
            ? Problem::notFound()->toResponse(request())
            : $this->answer->stream($file->path(), $file->media_type, "{$file->sha256}", $file->isPicture());
    }

    #[Get('/projects/{project}/files/{sha256}/thumbnail', 'A small picture of it; the whole one until that is made')]
    public function thumbnail(Project $project, string $sha256): StreamedResponse|JsonResponse
    {
        $file = $this->find($project, $sha256);

        return null === $file || !$file->isPicture()
            ? Problem::notFound()->toResponse(request())
            : $this->answer->thumbnail($file, $file->sha256);
    }

    #[
        Put(
            '/projects/{project}/files/{sha256}/ignored-regions',
            'What a comparison with this picture leaves out',
            null,
            RegionsRequest::class,
            204,
        ),
    ]
    #[Needs(Permission::Record)]
    public function ignore(RegionsRequest $request, Project $project, string $sha256, IgnoreRegions $ignore): JsonResponse
    {
        Gate::authorize('writeCases', $project);
        $ignore(
            $project,
            $sha256,
            array_values(
                array_map(
                    static fn(array $r): array => [
                        'x' => (int) $r['x'],
                        'y' => (int) $r['y'],
                        'width' => (int) $r['width'],
                        'height' => (int) $r['height'],
                    ],
                    (array) $request->validated('regions'),
                ),
            ),
        );

        return new JsonResponse(null, 204);
    }

    private function find(Project $project, string $sha256): ?StoredFile
    {
        return $this->files->find($project->id, $sha256);
    }
}
