<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Route;
use LucidStep\App\Http\Controllers\AttemptController;
use LucidStep\App\Http\Controllers\CaseActController;
use LucidStep\App\Http\Controllers\CaseController;
use LucidStep\App\Http\Controllers\CaseExchangeController;
use LucidStep\App\Http\Controllers\CaseMessageController;
use LucidStep\App\Http\Controllers\CycleController;
use LucidStep\App\Http\Controllers\DataTableController;
use LucidStep\App\Http\Controllers\DefectController;
use LucidStep\App\Http\Controllers\EvidenceController;
use LucidStep\App\Http\Controllers\FileController;
use LucidStep\App\Http\Controllers\FolderController;
use LucidStep\App\Http\Controllers\ListController;
use LucidStep\App\Http\Controllers\ProjectController;
use LucidStep\App\Http\Controllers\RoutineController;
use LucidStep\App\Http\Controllers\SessionController;
use LucidStep\App\Http\Controllers\SuiteController;
use LucidStep\App\Http\Controllers\UpController;
use LucidStep\App\Http\Middleware\Idempotent;

Route::get('/welcome', [SessionController::class, 'welcome']);
Route::post('/session', [SessionController::class, 'store'])->middleware('throttle:sign-in');

if (config('lucid.bench')) {
    Route::get('/bench/bare', UpController::class.'@bare');
}

Route::middleware('auth:sanctum')->group(function (): void {
    Route::get('/session', [SessionController::class, 'show']);
    Route::delete('/session', [SessionController::class, 'destroy']);

    Route::get('/projects', [ProjectController::class, 'index']);
    Route::get('/projects/{project}', [ProjectController::class, 'show']);
    Route::get('/projects/{project}/today', [ProjectController::class, 'today']);
    Route::get('/projects/{project}/changes', [ProjectController::class, 'changes']);
    Route::get('/projects/{project}/go-to', [ProjectController::class, 'goTo']);

    Route::get('/projects/{project}/casebook', [CaseController::class, 'frame']);
    Route::get('/projects/{project}/folders', [CaseController::class, 'folders']);
    Route::get('/projects/{project}/cases', [CaseController::class, 'index']);
    Route::get('/projects/{project}/cases/counts', [CaseController::class, 'counts']);
    Route::post('/projects/{project}/case-checks', [CaseController::class, 'check']);
    Route::post('/projects/{project}/case-previews', [CaseActController::class, 'preview']);
    Route::get('/cases/{case}', [CaseController::class, 'show']);
    Route::post('/cases/{case}/merges', [CaseController::class, 'merge']);
    Route::get('/cases/{case}/history', [CaseController::class, 'history']);
    Route::get('/cases/{case}/comparison', [CaseController::class, 'comparison']);
    Route::get('/cases/{case}/results', [CaseController::class, 'results']);
    Route::put('/cases/{case}/presence', [CaseController::class, 'presence']);
    Route::get('/projects/{project}/routines', [RoutineController::class, 'index']);
    Route::get('/routines/{routine}', [RoutineController::class, 'show']);
    Route::get('/projects/{project}/data-tables', [DataTableController::class, 'index']);
    Route::get('/data-tables/{table}', [DataTableController::class, 'show']);
    Route::get('/projects/{project}/suites', [SuiteController::class, 'index']);
    Route::get('/suites/{suite}', [SuiteController::class, 'show']);
    Route::get('/projects/{project}/filters', [SuiteController::class, 'filters']);
    Route::get('/projects/{project}/requirements', [SuiteController::class, 'requirements']);
    Route::get('/projects/{project}/lists', [ListController::class, 'show']);
    Route::get('/projects/{project}/case-inbox', [CaseMessageController::class, 'inbox']);
    Route::get('/projects/{project}/case-care', [CaseMessageController::class, 'care']);
    Route::get('/case-imports/{import}', [CaseExchangeController::class, 'show']);
    Route::get('/projects/{project}/case-template', [CaseExchangeController::class, 'template']);
    Route::get('/case-exports/{export}', [CaseExchangeController::class, 'exported']);
    Route::get('/case-exports/{export}/file', [CaseExchangeController::class, 'file']);
    Route::get('/projects/{project}/files/{sha256}', [FileController::class, 'show']);
    Route::get('/projects/{project}/files/{sha256}/thumbnail', [FileController::class, 'thumbnail']);

    Route::get('/projects/{project}/cycles', [CycleController::class, 'index']);
    Route::get('/cycles/{cycle}', [CycleController::class, 'show']);
    Route::get('/entries/{entry}', [CycleController::class, 'entry']);

    Route::get('/attempts/{attempt}', [AttemptController::class, 'show']);
    Route::get('/attempts/{attempt}/verification', [AttemptController::class, 'verify']);
    Route::get('/attempts/{attempt}/defect-draft', [DefectController::class, 'draft']);
    Route::get('/evidence/{evidence}/file', [EvidenceController::class, 'file']);
    Route::get('/evidence/{evidence}/thumbnail', [EvidenceController::class, 'thumbnail']);

    Route::get('/projects/{project}/defects', [DefectController::class, 'index']);
    Route::get('/defects/{defect}', [DefectController::class, 'show']);

    Route::middleware(Idempotent::class)->group(function (): void {
        Route::post('/projects/{project}/cases', [CaseController::class, 'store']);
        Route::put('/cases/{case}', [CaseController::class, 'update']);
        Route::post('/cases/{case}/restorations', [CaseController::class, 'bringBack']);
        Route::post('/cases/{case}/reviews', [CaseController::class, 'review']);
        Route::post('/cases/{case}/routines', [CaseController::class, 'extract']);
        Route::post('/cases/{case}/messages', [CaseMessageController::class, 'store']);
        Route::delete('/cases/{case}/doubles/{other}', [CaseMessageController::class, 'setAside']);
        Route::post('/case-messages/{message}/answers', [CaseMessageController::class, 'answer']);
        Route::post('/projects/{project}/case-acts', [CaseActController::class, 'store']);
        Route::post('/case-acts/{act}/undo', [CaseActController::class, 'undo']);
        Route::post('/projects/{project}/folders', [FolderController::class, 'store']);
        Route::patch('/folders/{folder}', [FolderController::class, 'update']);
        Route::delete('/folders/{folder}', [FolderController::class, 'destroy']);
        Route::post('/projects/{project}/routines', [RoutineController::class, 'store']);
        Route::put('/routines/{routine}', [RoutineController::class, 'update']);
        Route::delete('/routines/{routine}', [RoutineController::class, 'destroy']);
        Route::post('/routines/{routine}/restorations', [RoutineController::class, 'restore']);
        Route::post('/projects/{project}/data-tables', [DataTableController::class, 'store']);
        Route::put('/data-tables/{table}', [DataTableController::class, 'update']);
        Route::delete('/data-tables/{table}', [DataTableController::class, 'destroy']);
        Route::post('/data-tables/{table}/restorations', [DataTableController::class, 'restore']);
        Route::post('/projects/{project}/suites', [SuiteController::class, 'store']);
        Route::patch('/suites/{suite}', [SuiteController::class, 'update']);
        Route::post('/suites/{suite}/acceptances', [SuiteController::class, 'accept']);
        Route::delete('/suites/{suite}', [SuiteController::class, 'destroy']);
        Route::post('/suites/{suite}/restorations', [SuiteController::class, 'restore']);
        Route::post('/projects/{project}/filters', [SuiteController::class, 'keep']);
        Route::delete('/filters/{filter}', [SuiteController::class, 'drop']);
        Route::post('/projects/{project}/requirements', [SuiteController::class, 'require']);
        Route::put('/projects/{project}/lists/types', [ListController::class, 'types']);
        Route::put('/projects/{project}/lists/priorities', [ListController::class, 'priorities']);
        Route::put('/projects/{project}/lists/fields', [ListController::class, 'fields']);
        Route::post('/projects/{project}/labels', [ListController::class, 'addLabels']);
        Route::patch('/projects/{project}/labels', [ListController::class, 'renameLabel']);
        Route::post('/projects/{project}/files', [FileController::class, 'store']);
        Route::post('/projects/{project}/case-imports', [CaseExchangeController::class, 'upload']);
        Route::post('/case-imports/{import}/mapping', [CaseExchangeController::class, 'map']);
        Route::post('/case-imports/{import}/start', [CaseExchangeController::class, 'start']);
        Route::post('/case-imports/{import}/cancel', [CaseExchangeController::class, 'cancel']);
        Route::post('/case-imports/{import}/undo', [CaseExchangeController::class, 'undo']);
        Route::post('/projects/{project}/case-exports', [CaseExchangeController::class, 'export']);
        Route::post('/case-exports/{export}/cancel', [CaseExchangeController::class, 'stopExport']);
        Route::post('/entries/{entry}/retests', [CycleController::class, 'retest']);
        Route::post('/entries/{entry}/attempts', [AttemptController::class, 'store']);
        Route::post('/attempts/{attempt}/verdicts', [AttemptController::class, 'verdict']);
        Route::post('/attempts/{attempt}/notes', [AttemptController::class, 'note']);
        Route::post('/attempts/{attempt}/finish', [AttemptController::class, 'finish']);
        Route::post('/attempts/{attempt}/time', [AttemptController::class, 'time']);
        Route::post('/attempts/{attempt}/take-over', [AttemptController::class, 'takeOver']);
        Route::post('/attempts/{attempt}/evidence', [EvidenceController::class, 'store']);
        Route::patch('/evidence/{evidence}', [EvidenceController::class, 'update']);
        Route::delete('/evidence/{evidence}', [EvidenceController::class, 'destroy']);
        Route::post('/projects/{project}/defects', [DefectController::class, 'store']);
        Route::post('/defects/{defect}/links', [DefectController::class, 'link']);
        Route::post('/defects/{defect}/moves', [DefectController::class, 'move']);
    });
});
