<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Route;
use LucidStep\App\Http\Controllers\AttemptController;
use LucidStep\App\Http\Controllers\CaseController;
use LucidStep\App\Http\Controllers\CycleController;
use LucidStep\App\Http\Controllers\DefectController;
use LucidStep\App\Http\Controllers\EvidenceController;
use LucidStep\App\Http\Controllers\ProjectController;
use LucidStep\App\Http\Controllers\SessionController;
use LucidStep\App\Http\Middleware\Idempotent;

Route::get('/welcome', [SessionController::class, 'welcome']);
Route::post('/session', [SessionController::class, 'store'])->middleware('throttle:sign-in');

Route::middleware('auth:sanctum')->group(function (): void {
    Route::get('/session', [SessionController::class, 'show']);
    Route::delete('/session', [SessionController::class, 'destroy']);

    Route::get('/projects', [ProjectController::class, 'index']);
    Route::get('/projects/{project}', [ProjectController::class, 'show']);
    Route::get('/projects/{project}/today', [ProjectController::class, 'today']);
    Route::get('/projects/{project}/changes', [ProjectController::class, 'changes']);
    Route::get('/projects/{project}/go-to', [ProjectController::class, 'goTo']);

    Route::get('/projects/{project}/folders', [CaseController::class, 'folders']);
    Route::get('/projects/{project}/cases', [CaseController::class, 'index']);
    Route::get('/cases/{case}', [CaseController::class, 'show']);

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
        Route::post('/projects/{project}/case-imports', [CaseController::class, 'import']);
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
