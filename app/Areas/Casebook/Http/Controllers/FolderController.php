<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Casebook\Actions\SaveFolders;
use LucidStep\App\Areas\Casebook\Data\BulkEditResult;
use LucidStep\App\Areas\Casebook\Data\FolderLine;
use LucidStep\App\Areas\Casebook\Http\Requests\FolderRequest;
use LucidStep\App\Models\Folder;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;

/**
 * Folders of the casebook.
 */
final class FolderController
{
    public function __construct(private readonly SaveFolders $keep, private readonly Memberships $memberships) {}

    #[Post('/projects/{project}/folders', 'Make a folder', FolderLine::class, FolderRequest::class, 201)]
    #[Needs(Permission::WriteCases)]
    public function store(FolderRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('writeCases', $project);
        $folder = $this->keep->make($project, $request->string('name')->toString(), $request->validated('parent_id'));

        return new JsonResponse(FolderLine::of($folder, 0), 201);
    }

    #[Patch('/folders/{folder}', 'Name or move a folder', FolderLine::class, FolderRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function update(FolderRequest $request, Folder $folder): JsonResponse
    {
        $project = ProjectLookup::find($folder->project_id);
        Gate::authorize('writeCases', $project);
        $this->keep->change(
            $project,
            $folder,
            $request->string('name', $folder->name)->toString(),
            $request->validated('parent_id'),
            $request->validated('before'),
            $request->boolean('move'),
            $request->validated('seen'),
        );

        return new JsonResponse(FolderLine::of($folder->refresh(), 0));
    }

    #[Delete('/folders/{folder}', 'Bin a folder with what is in it', BulkEditResult::class, StampRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function destroy(StampRequest $request, Folder $folder): JsonResponse
    {
        $project = ProjectLookup::find($folder->project_id);
        Gate::authorize('writeCases', $project);
        $user = $request->person();
        $act = $this->keep->bin($project, $user, $this->memberships->sure($user, $project->id), $folder);

        return new JsonResponse(new BulkEditResult($act, "Binned the folder {$folder->name}", 0, [], []));
    }
}
