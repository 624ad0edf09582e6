<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Walk\Actions\RetestAfterFix;
use LucidStep\App\Areas\Walk\Data\ReproductionAnswer;
use LucidStep\App\Areas\Walk\Data\RetestLine;
use LucidStep\App\Areas\Walk\Http\Requests\RetestsRequest;
use LucidStep\App\Areas\Walk\Queries\ReadReproduction;
use LucidStep\App\Areas\Walk\Queries\ReadRetests;
use LucidStep\App\Models\Defect;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;

/**
 * How a fault is come by, from what was walked, and what is walked again after its fix.
 */
final class ReproductionController
{
    #[Get('/defects/{defect}/reproduction', 'How to get to a fault, and where the failing step passed', ReproductionAnswer::class)]
    #[Needs(Permission::SeeEvidence)]
    public function show(Defect $defect, ReadReproduction $read): JsonResponse
    {
        return new JsonResponse(new ReproductionAnswer($read($defect)));
    }

    #[Get('/defects/{defect}/retests', 'Failed entries that can be walked again after its fix', RetestLine::class, true)]
    #[Needs(Permission::SeeEvidence)]
    public function retests(Defect $defect, ReadRetests $read): JsonResponse
    {
        return new JsonResponse($read->of($defect));
    }

    #[Post('/defects/{defect}/retests', 'Ask for some of them to be walked again', RetestLine::class, RetestsRequest::class, list: true)]
    #[Needs(Permission::Lead)]
    public function ask(RetestsRequest $request, Defect $defect, RetestAfterFix $ask, ReadRetests $read): JsonResponse
    {
        Gate::authorize('lead', ProjectLookup::find($defect->project_id));
        $ask($defect, $request->person(), array_values(array_map(strval(...), (array) $request->validated('entries'))));

        return new JsonResponse($read->of($defect));
    }
}
