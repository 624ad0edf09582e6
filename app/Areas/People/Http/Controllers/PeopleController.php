<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\People\Actions\InvitePeople;
use LucidStep\App\Areas\People\Actions\ManagePeople;
use LucidStep\App\Areas\People\Data\InvitationAddress;
use LucidStep\App\Areas\People\Data\InvitedLine;
use LucidStep\App\Areas\People\Data\PeoplePage;
use LucidStep\App\Areas\People\Http\Requests\DepartureRequest;
use LucidStep\App\Areas\People\Http\Requests\InviteRequest;
use LucidStep\App\Areas\People\Http\Requests\RoleRequest;
use LucidStep\App\Areas\People\Queries\ReadPeople;
use LucidStep\App\Models\Invitation;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Access\Role;

/**
 * Who has part in a project: inviting, roles, leaving.
 */
final readonly class PeopleController
{
    public function __construct(
        private ReadPeople $read,
        private ManagePeople $manage,
        private InvitePeople $invite,
        private Memberships $memberships,
    ) {}

    #[Get('/projects/{project}/people', 'The people of a project and who is invited', PeoplePage::class)]
    public function index(Request $request, Project $project): JsonResponse
    {
        return $this->answer($request, $project);
    }

    #[Post('/projects/{project}/invitations', 'Invite people, a line each', InvitedLine::class, InviteRequest::class, 201, list: true)]
    #[Needs(Permission::Administer)]
    public function invite(InviteRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('administer', $project);
        $lines = ($this->invite)($project, $request->person(), (string) $request->validated('text'), self::roleOf($request));

        return new JsonResponse($lines, 201);
    }

    #[Post('/invitations/{invitation}/sendings', 'Send an invitation again, for another seven days', status: 204)]
    #[Needs(Permission::Administer)]
    public function again(Invitation $invitation): Response
    {
        Gate::authorize('administer', $invitation->project);
        $this->invite->again($invitation);

        return new Response('', 204);
    }

    #[Post('/invitations/{invitation}/addresses', 'Tell the address at which an invitation is accepted', InvitationAddress::class)]
    #[Needs(Permission::Administer)]
    public function address(Invitation $invitation): JsonResponse
    {
        Gate::authorize('administer', $invitation->project);

        return new JsonResponse(new InvitationAddress($this->invite->address($invitation)));
    }

    #[Delete('/invitations/{invitation}', 'Withdraw an invitation', status: 204)]
    #[Needs(Permission::Administer)]
    public function withdraw(Invitation $invitation): Response
    {
        Gate::authorize('administer', $invitation->project);
        $this->invite->withdraw($invitation);

        return new Response('', 204);
    }

    #[Put('/projects/{project}/people/{person}/role', 'Give a person another role', PeoplePage::class, RoleRequest::class)]
    #[Needs(Permission::Administer)]
    public function role(RoleRequest $request, Project $project, string $person): JsonResponse
    {
        Gate::authorize('administer', $project);
        $this->manage->changeRole($project, $this->memberships->of($project->id, $person)->user_id, self::roleOf($request));

        return $this->answer($request, $project);
    }

    #[
        Post(
            '/projects/{project}/people/{person}/departures',
            'Take a person out of a project, or leave it, and hand on what is open of theirs',
            body: DepartureRequest::class,
            status: 204,
        ),
    ]
    #[Needs(Permission::Read)]
    public function leave(DepartureRequest $request, Project $project, string $person): Response
    {
        if ($request->person()->id !== $person) {
            Gate::authorize('administer', $project);
        }
        $to = $request->validated('to');
        $leaving = $this->memberships->of($project->id, $person)->user_id;
        $this->manage->leave($project, $leaving, \is_string($to) ? $to : null, $request->person());

        return new Response('', 204);
    }

    private function answer(Request $request, Project $project): JsonResponse
    {
        return new JsonResponse(($this->read)($project, $this->memberships->sure($this->memberships->person($request), $project->id)));
    }

    private static function roleOf(InviteRequest|RoleRequest $request): Role
    {
        return Role::from((string) $request->validated('role'));
    }
}
