<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Defects\Data\DefectChoices;
use LucidStep\App\Areas\Defects\Data\DefectPage;
use LucidStep\App\Areas\Defects\Data\LikelyDefect;
use LucidStep\App\Areas\Defects\Exchange\WriteDefects;
use LucidStep\App\Areas\Defects\Http\Requests\DefectFilterRequest;
use LucidStep\App\Areas\Defects\Queries\DefectFilter;
use LucidStep\App\Areas\Defects\Queries\FindDefects;
use LucidStep\App\Areas\Defects\Queries\FindLikely;
use LucidStep\App\Areas\Defects\Queries\ReadDefect;
use LucidStep\App\Areas\Defects\Queries\ReadDefectChoices;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\AllowedInArchive;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Filters\SavedFilterLine;
use LucidStep\App\Support\Filters\SavedFilters;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * Lists of defects: what fits a filter, what may be the same, and what can be chosen.
 */
final readonly class DefectListController
{
    public function __construct(private Memberships $memberships) {}

    #[
        Get(
            '/projects/{project}/defects',
            'The defects of a project, the newest first',
            DefectPage::class,
            query: [
                ...DefectFilter::PARAMETERS,
                'sort' => '`number`, `title`, `state`, `severity`, `priority`, `changed` or `age`, backwards with a minus before it',
                'group' => '`state`, `severity`, `priority`, `assignee`, `component` or `build`: in groups, the newest first in each',
                'after' => 'Where the page before ended',
            ],
        ),
    ]
    #[Needs(Permission::SeeEvidence)]
    public function index(Request $request, Project $project, FindDefects $find): JsonResponse
    {
        $filter = DefectFilter::from($project, $this->memberships->person($request), $request->query->all());

        return new JsonResponse(
            $find($filter, $request->query->getString('sort'), $request->query->getString('after'), $request->query->getString('group')),
        );
    }

    #[
        Get(
            '/projects/{project}/defect-export',
            'The defects that fit, as a file: CSV, JSON with their talk, or text to read and print',
            query: [...DefectFilter::PARAMETERS, 'format' => '`csv`, `json`, `md`, `txt` or `html`'],
        ),
    ]
    #[Needs(Permission::SeeEvidence)]
    public function export(Request $request, Project $project, WriteDefects $write): StreamedResponse
    {
        $asked = $request->query->getString('format', 'csv');
        $format = \array_key_exists($asked, WriteDefects::TYPES)
            ? $asked
            : throw ValidationException::withMessages([
                'format' => 'One of csv, json, md, txt, html.',
            ]);
        $filter = DefectFilter::from($project, $this->memberships->person($request), $request->query->all());
        $place = 'html' === $format ? 'inline' : 'attachment';

        return new StreamedResponse(
            static function () use ($write, $project, $filter, $format): void {
                $write($project, $filter, $format, fopen('php://output', 'w') ?: throw new \RuntimeException('No output.'));
            },
            200,
            [
                'Content-Type' => WriteDefects::TYPES[$format],
                'Content-Disposition' => "{$place}; filename=\"{$project->code}-defects.{$format}\"",
                'Content-Security-Policy' => "default-src 'none'; style-src 'unsafe-inline'; sandbox allow-modals",
            ],
        );
    }

    #[Get('/projects/{project}/defect-choices', 'What can be chosen where defects are filed and looked for', DefectChoices::class)]
    #[Needs(Permission::SeeEvidence)]
    public function choices(Request $request, Project $project, ReadDefectChoices $read): JsonResponse
    {
        return new JsonResponse($read($project, $this->memberships->person($request)));
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
                'component' => 'What it is filed under',
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
                Str::isUuid($attempt) ? ReadDefect::attempt($project->id, $attempt) : null,
                $request->query->getInt('step') ?: null,
                $text('component'),
            ),
        );
    }

    #[
        Post(
            '/projects/{project}/defect-filters',
            'Save a filter; one of one\'s own with the same name is replaced',
            SavedFilterLine::class,
            DefectFilterRequest::class,
            201,
        ),
    ]
    #[AllowedInArchive]
    #[Needs(Permission::SeeEvidence)]
    public function keep(DefectFilterRequest $request, Project $project): JsonResponse
    {
        $user = $request->person();
        $shared = $request->boolean('shared');
        if ($shared) {
            Gate::authorize('fileDefects', $project);
        }
        $input = (array) $request->validated('filter');
        $shown = array_filter(array_intersect_key($input, array_flip(['sort', 'group', 'columns', 'as'])), is_string(...));
        $asked = DefectFilter::from($project, $user, $input)->asked;
        unset($asked['ids']);
        $kept = SavedFilters::keep($project, $user, 'defect', $request->string('name')->toString(), $shared, [...$asked, ...$shown]);

        return new JsonResponse(SavedFilterLine::from($kept, $user->id), 201);
    }
}
