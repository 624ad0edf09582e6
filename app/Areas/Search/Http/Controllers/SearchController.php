<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Search\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Search\Data\GoToList;
use LucidStep\App\Areas\Search\Queries\SearchProject;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\OpenApi\Get;

/**
 * Finding things by words from anywhere.
 */
final class SearchController
{
    #[Get('/projects/{project}/go-to', 'Whatever of a project fits some words or a key', GoToList::class, query: ['q' => 'The words'])]
    public function goTo(Request $request, Project $project, SearchProject $search, Memberships $memberships): JsonResponse
    {
        $words = trim(mb_substr($request->query->getString('q'), 0, 100));

        $found = '' === $words ? [] : $search($project, $memberships->person($request), $words, Gate::allows('lead', $project));

        return new JsonResponse(new GoToList($found));
    }
}
