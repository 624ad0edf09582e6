<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Controllers;

use Illuminate\Http\JsonResponse;
use LucidStep\App\Areas\Walk\Data\ReproductionAnswer;
use LucidStep\App\Areas\Walk\Queries\ReadReproduction;
use LucidStep\App\Models\Defect;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\Core\Access\Permission;

/**
 * How a fault is come by, from what was walked.
 */
final class ReproductionController
{
    #[Get('/defects/{defect}/reproduction', 'How to get to a fault, and where the failing step passed', ReproductionAnswer::class)]
    #[Needs(Permission::SeeEvidence)]
    public function show(Defect $defect, ReadReproduction $read): JsonResponse
    {
        return new JsonResponse(new ReproductionAnswer($read($defect)));
    }
}
