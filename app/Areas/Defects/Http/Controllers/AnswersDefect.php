<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Models\Defect;

/**
 * Answers with a defect as it is now.
 */
trait AnswersDefect
{
    private function answer(Defect $defect, int $status = 200): JsonResponse
    {
        return new JsonResponse(($this->read)($defect, Gate::allows('link', $defect)), $status);
    }
}
