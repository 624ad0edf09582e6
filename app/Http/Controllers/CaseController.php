<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Gate;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Actions\Casebook\ImportCases;
use LucidStep\App\Actions\Casebook\ReadCasebook;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Requests\ImportRequest;
use LucidStep\App\Http\Resources\CaseDetail;
use LucidStep\App\Http\Resources\CasePage;
use LucidStep\App\Http\Resources\FolderLine;
use LucidStep\App\Http\Resources\ImportAnswer;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Exchange\CasesUnreadable;

/**
 * The casebook.
 */
final class CaseController
{
    #[Get('/projects/{project}/folders', 'The folders of the casebook', FolderLine::class, true)]
    public function folders(Project $project, ReadCasebook $read): JsonResponse
    {
        return new JsonResponse($read->folders($project));
    }

    #[Get('/projects/{project}/cases', 'The cases of a project in casebook order', CasePage::class, query: ['folder' => 'Only those in this folder', 'q' => 'Words of the title, or a key', 'after' => 'Where the page before ended'])]
    public function index(Request $request, Project $project, ReadCasebook $read): JsonResponse
    {
        return new JsonResponse($read->cases($project, $request->query->getString('folder'), $request->query->getString('q'), $request->query->getInt('after')));
    }

    #[Get('/cases/{case}', 'A case with its steps, and where it was walked', CaseDetail::class)]
    public function show(TestCase $case, ReadCasebook $read): JsonResponse
    {
        return new JsonResponse($read->case($case));
    }

    #[Post('/projects/{project}/case-imports', 'Bring cases in from a CSV file: all of them, or none', ImportAnswer::class, ImportRequest::class, 201, true)]
    public function import(ImportRequest $request, Project $project, ImportCases $import): JsonResponse
    {
        Gate::authorize('importCases', $project);
        $file = $request->file('file');
        try {
            return new JsonResponse(new ImportAnswer($import($project, $request->person(), $file instanceof UploadedFile ? (string) $file->get() : '')), 201);
        } catch (CasesUnreadable $e) {
            $errors = [];
            foreach ($e->errors as $error) {
                $errors["row {$error->row}".(null === $error->column ? '' : ".{$error->column}")][] = $error->message;
            }
            throw ValidationException::withMessages($errors);
        }
    }
}
