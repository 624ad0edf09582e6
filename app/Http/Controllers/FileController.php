<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Actions\Walk\ComparePictures;
use LucidStep\App\Actions\Walk\StoreFile;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Docs\Put;
use LucidStep\App\Http\FileAnswer;
use LucidStep\App\Http\Problem;
use LucidStep\App\Http\Requests\FileRequest;
use LucidStep\App\Http\Requests\RegionsRequest;
use LucidStep\App\Http\Resources\StoredFileLine;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\StoredFile;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * Files that cases and routines show.
 */
final class FileController
{
    public function __construct(private readonly FileAnswer $answer)
    {
    }

    #[Post('/projects/{project}/files', 'Keep a picture or a text for a step or a case', StoredFileLine::class, FileRequest::class, 201, true)]
    public function store(FileRequest $request, Project $project, StoreFile $store): JsonResponse
    {
        Gate::authorize('writeCases', $project);
        $upload = $request->file('file');
        $file = $store($upload instanceof UploadedFile ? $upload : throw new \LogicException('Validation lets a request without a file pass.'));
        DB::table('project_files')->insertOrIgnore(['project_id' => $project->id, 'sha256' => $file->sha256, 'added_by_id' => $request->person()->id, 'created_at' => Carbon::now()]);

        return new JsonResponse(new StoredFileLine($file->sha256, $request->string('name', $upload->getClientOriginalName())->toString(), $file->width, $file->height), 201);
    }

    #[Get('/projects/{project}/files/{sha256}', 'The file itself')]
    public function show(Project $project, string $sha256): StreamedResponse|JsonResponse
    {
        $file = $this->find($project, $sha256);

        return null === $file ? Problem::notFound()->toResponse(request()) : $this->answer->stream($file->path(), $file->media_type, "{$file->sha256}", $file->isPicture());
    }

    #[Get('/projects/{project}/files/{sha256}/thumbnail', 'A small picture of it; the whole one until that is made')]
    public function thumbnail(Project $project, string $sha256): StreamedResponse|JsonResponse
    {
        $file = $this->find($project, $sha256);

        return null === $file || !$file->isPicture() ? Problem::notFound()->toResponse(request()) : $this->answer->thumbnail($file, $file->sha256);
    }

    #[Put('/projects/{project}/files/{sha256}/ignored-regions', 'What a comparison with this picture leaves out', null, RegionsRequest::class, 204)]
    public function ignore(RegionsRequest $request, Project $project, string $sha256, ComparePictures $compare): JsonResponse
    {
        Gate::authorize('writeCases', $project);
        $compare->ignore($project, $sha256, array_values(array_map(static fn (array $r): array => ['x' => (int) $r['x'], 'y' => (int) $r['y'], 'width' => (int) $r['width'], 'height' => (int) $r['height']], (array) $request->validated('regions'))));

        return new JsonResponse(null, 204);
    }

    private function find(Project $project, string $sha256): ?StoredFile
    {
        return DB::table('project_files')->where('project_id', $project->id)->where('sha256', $sha256)->exists() ? StoredFile::query()->find($sha256) : null;
    }
}
