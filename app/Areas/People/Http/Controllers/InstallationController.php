<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Controllers;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Str;
use LucidStep\App\Areas\People\Actions\DeleteProject;
use LucidStep\App\Areas\People\Actions\ManageOwners;
use LucidStep\App\Areas\People\Actions\ManageProjects;
use LucidStep\App\Areas\People\Actions\SecondFactor;
use LucidStep\App\Areas\People\Actions\TryServices;
use LucidStep\App\Areas\People\Data\InstallationPage;
use LucidStep\App\Areas\People\Data\ProjectSummary;
use LucidStep\App\Areas\People\Data\ServiceTest;
use LucidStep\App\Areas\People\Http\Requests\DeletionRequest;
use LucidStep\App\Areas\People\Http\Requests\OwnerRequest;
use LucidStep\App\Areas\People\Http\Requests\ProjectRequest;
use LucidStep\App\Areas\People\Queries\ReadInstallation;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\OwnersOnly;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\Core\Access\Role;

/**
 * What owners of the installation look after. They see no project by it that they have no part in: only that it is there.
 */
final readonly class InstallationController
{
    public function __construct(
        private ReadInstallation $read,
        private ManageProjects $projects,
        private ManageOwners $owners,
        private Memberships $memberships,
    ) {}

    #[Get('/installation', 'All projects and people, for owners', InstallationPage::class)]
    #[OwnersOnly]
    public function show(Request $request): JsonResponse
    {
        return $this->answer($request);
    }

    #[Post('/projects', 'Make a project, with oneself as its admin', ProjectSummary::class, ProjectRequest::class, 201)]
    #[OwnersOnly]
    public function make(ProjectRequest $request): JsonResponse
    {
        $like = $request->validated('like');
        $project = $this->projects->make(
            $request->person(),
            (string) $request->validated('code'),
            trim((string) $request->validated('name')),
            (string) $request->validated('time_zone'),
            \is_string($like) ? $this->projects->known($request->person(), $like) : null,
        );

        return new JsonResponse(ProjectSummary::from($project, Role::Admin, null !== $request->person()->totp_confirmed_at), 201);
    }

    #[Post('/installation/projects/{id}/archivings', 'Archive a project: it is read and not written any more', InstallationPage::class)]
    #[OwnersOnly]
    public function archive(Request $request, string $id): JsonResponse
    {
        $this->projects->archive(self::project($id));

        return $this->answer($request);
    }

    #[
        Post(
            '/installation/projects/{id}/deletions',
            'Delete an archived project with everything in it',
            InstallationPage::class,
            DeletionRequest::class,
        ),
    ]
    #[OwnersOnly]
    public function delete(DeletionRequest $request, string $id, DeleteProject $delete): JsonResponse
    {
        $delete->ask(self::project($id), $request->person(), (string) $request->validated('name'));

        return $this->answer($request);
    }

    #[Post('/installation/mail-tests', 'Send a mail to oneself, to see whether sending works', ServiceTest::class)]
    #[OwnersOnly]
    public function tryMail(Request $request, TryServices $try): JsonResponse
    {
        return new JsonResponse($try->mail($this->memberships->person($request)));
    }

    #[Post('/installation/storage-tests', 'Write a file and read it back, to see whether storage works', ServiceTest::class)]
    #[OwnersOnly]
    public function tryStorage(TryServices $try): JsonResponse
    {
        return new JsonResponse($try->storage());
    }

    #[Post('/installation/projects/{id}/restorations', 'Take an archived project up again', InstallationPage::class)]
    #[OwnersOnly]
    public function restore(Request $request, string $id): JsonResponse
    {
        $this->projects->restore(self::project($id));

        return $this->answer($request);
    }

    #[Put('/installation/people/{id}/ownership', 'Make a person an owner, or not any more', InstallationPage::class, OwnerRequest::class)]
    #[OwnersOnly]
    public function owner(OwnerRequest $request, string $id): JsonResponse
    {
        $this->owners->change(self::sure($id), $request->boolean('is_owner'));

        return $this->answer($request);
    }

    #[Post('/installation/people/{id}/factor-removals', 'Take the second factor of somebody who lost it', InstallationPage::class)]
    #[OwnersOnly]
    public function dropFactor(Request $request, string $id): JsonResponse
    {
        SecondFactor::clear(User::query()->findOrFail(self::sure($id)));

        return $this->answer($request);
    }

    private function answer(Request $request): JsonResponse
    {
        return new JsonResponse(($this->read)($this->memberships->person($request)));
    }

    private static function project(string $id): Project
    {
        return Project::query()->whereNull('deleting_at')->findOrFail(self::sure($id));
    }

    private static function sure(string $id): string
    {
        return Str::isUuid($id) ? $id : throw new ModelNotFoundException();
    }
}
