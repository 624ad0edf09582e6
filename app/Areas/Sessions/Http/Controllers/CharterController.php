<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Controllers;

use Illuminate\Http\JsonResponse;
use LucidStep\App\Areas\Sessions\Actions\RunSession;
use LucidStep\App\Areas\Sessions\Actions\SaveCharter;
use LucidStep\App\Areas\Sessions\Data\CharterDetail;
use LucidStep\App\Areas\Sessions\Data\CharterLine;
use LucidStep\App\Areas\Sessions\Data\SessionDetail;
use LucidStep\App\Areas\Sessions\Http\Requests\CharterRequest;
use LucidStep\App\Areas\Sessions\Http\Requests\StartSessionRequest;
use LucidStep\App\Areas\Sessions\Queries\CharterLines;
use LucidStep\App\Areas\Sessions\Queries\ReadSession;
use LucidStep\App\Models\Charter;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\Core\Access\Permission;

/**
 * Charters: what is to be explored.
 */
final readonly class CharterController
{
    public function __construct(private SaveCharter $save, private Memberships $memberships) {}

    #[Get('/projects/{project}/charters', 'What runs, what waits and what was explored', CharterLine::class, list: true)]
    #[Needs(Permission::SeeEvidence)]
    public function index(Project $project): JsonResponse
    {
        return new JsonResponse(CharterLines::of($project->id));
    }

    #[Get('/charters/{charter}', 'A charter with its sessions', CharterDetail::class)]
    #[Needs(Permission::SeeEvidence)]
    public function show(Charter $charter): JsonResponse
    {
        return new JsonResponse(new CharterDetail(...CharterLines::one($charter->id)));
    }

    #[
        Post(
            '/projects/{project}/charters',
            'Write a charter: a lead for anybody, a tester for themselves',
            CharterDetail::class,
            CharterRequest::class,
            201,
        ),
    ]
    #[Needs(Permission::Record)]
    public function store(CharterRequest $request, Project $project): JsonResponse
    {
        $person = $request->person();
        $charter = $this->save->create($project, $person, $request->fields(), $this->mayLead($person, $project->id));

        return new JsonResponse(new CharterDetail(...CharterLines::one($charter->id)), 201);
    }

    #[Put('/charters/{charter}', 'Change a charter', CharterDetail::class, CharterRequest::class)]
    #[Needs(Permission::Record)]
    public function update(CharterRequest $request, Charter $charter): JsonResponse
    {
        $person = $request->person();
        $mayLead = $this->mayLead($person, $charter->project_id);
        $this->save->update($charter, $person, $request->fields(), $request->integer('version'), $mayLead);

        return new JsonResponse(new CharterDetail(...CharterLines::one($charter->id)));
    }

    #[
        Delete(
            '/charters/{charter}',
            'Say that nobody is to run it any more; what was recorded stays',
            CharterDetail::class,
            StampRequest::class,
        ),
    ]
    #[Needs(Permission::Record)]
    public function drop(StampRequest $request, Charter $charter): JsonResponse
    {
        return $this->dropped($request->person(), $charter, true);
    }

    #[Post('/charters/{charter}/restorations', 'Let it be run again', CharterDetail::class, StampRequest::class)]
    #[Needs(Permission::Record)]
    public function restore(StampRequest $request, Charter $charter): JsonResponse
    {
        return $this->dropped($request->person(), $charter, false);
    }

    #[
        Post(
            '/charters/{charter}/sessions',
            'Start a session; another of the same person that runs is paused',
            SessionDetail::class,
            StartSessionRequest::class,
            201,
        ),
    ]
    #[Needs(Permission::Record)]
    public function start(StartSessionRequest $request, Charter $charter, RunSession $run, ReadSession $read): JsonResponse
    {
        /** @var array{build_id?: ?string, configuration_id?: ?string, environment?: ?string} $on */
        $on = array_intersect_key((array) $request->validated(), ['build_id' => 0, 'configuration_id' => 0, 'environment' => 0]);
        $session = $run->start($charter, $request->person(), $request->string('id')->toString(), $on, $request->stamp());

        return new JsonResponse($read($session, $request->person()), 201);
    }

    private function dropped(User $person, Charter $charter, bool $dropped): JsonResponse
    {
        $this->save->drop($charter, $person, $dropped, $this->mayLead($person, $charter->project_id));

        return new JsonResponse(new CharterDetail(...CharterLines::one($charter->id)));
    }

    private function mayLead(User $person, string $project): bool
    {
        return $this->memberships->may($person, $project, Permission::Lead);
    }
}
