<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Route;
use LucidStep\App\Areas\Sessions\Http\Controllers\CharterController;
use LucidStep\App\Areas\Sessions\Http\Controllers\ObserverController;
use LucidStep\App\Areas\Sessions\Http\Controllers\SessionReviewController;
use LucidStep\App\Areas\Sessions\Http\Controllers\StretchController;
use LucidStep\App\Areas\Sessions\Http\Controllers\TestSessionController;
use LucidStep\App\Areas\Sessions\Http\Controllers\TimelineController;
use LucidStep\App\Support\Http\NameActor;

// Sessions of exploring: within the group of those who have signed in.
Route::get('/projects/{project}/charters', [CharterController::class, 'index']);
Route::post('/projects/{project}/charters', [CharterController::class, 'store']);
Route::get('/charters/{charter}', [CharterController::class, 'show']);
Route::put('/charters/{charter}', [CharterController::class, 'update']);
Route::delete('/charters/{charter}', [CharterController::class, 'drop']);
Route::get('/projects/{project}/session-figures', [SessionReviewController::class, 'figures']);
Route::get('/projects/{project}/unexplored', [SessionReviewController::class, 'unexplored']);
Route::post('/charters/{charter}/restorations', [CharterController::class, 'restore']);
// What is recorded changes no setup.
Route::withoutMiddleware(NameActor::class)->group(function (): void {
    Route::post('/charters/{charter}/sessions', [CharterController::class, 'start']);
    Route::get('/test-sessions/{testSession}', [TestSessionController::class, 'show']);
    Route::post('/test-sessions/{testSession}/moves', [TestSessionController::class, 'move']);
    Route::put('/test-sessions/{testSession}/box', [TestSessionController::class, 'extend']);
    Route::post('/test-sessions/{testSession}/switches', [TestSessionController::class, 'switch']);
    Route::post('/test-sessions/{testSession}/time-moves', [TestSessionController::class, 'moveTime']);
    Route::put('/test-sessions/{testSession}/debrief', [TestSessionController::class, 'write']);
    Route::post('/test-sessions/{testSession}/sign-offs', [TestSessionController::class, 'signOff']);
    Route::get('/test-sessions/{testSession}/verification', [SessionReviewController::class, 'verify']);
    Route::get('/test-sessions/{testSession}/bundle', [SessionReviewController::class, 'bundle']);
    Route::get('/test-sessions/{testSession}/sheet', [SessionReviewController::class, 'sheet']);
    Route::post('/test-sessions/{testSession}/comments', [SessionReviewController::class, 'say']);
    Route::post('/session-comments/{sessionComment}/removals', [SessionReviewController::class, 'remove']);
    Route::get('/test-sessions/{testSession}/observer', [ObserverController::class, 'show']);
    Route::post('/test-sessions/{testSession}/observer', [ObserverController::class, 'pair']);
    Route::delete('/test-sessions/{testSession}/observer', [ObserverController::class, 'part']);
    Route::get('/test-sessions/{testSession}/lines', [TimelineController::class, 'index']);
    Route::post('/test-sessions/{testSession}/lines', [TimelineController::class, 'store']);
    Route::post('/test-sessions/{testSession}/captures', [TimelineController::class, 'capture']);
    Route::patch('/session-lines/{sessionLine}', [TimelineController::class, 'mend']);
    Route::post('/session-lines/{sessionLine}/removals', [TimelineController::class, 'remove']);
    Route::get('/session-lines/{sessionLine}/stretch', [StretchController::class, 'show']);
    Route::put('/session-lines/{sessionLine}/repro', [StretchController::class, 'save']);
    Route::post('/session-lines/{sessionLine}/repro/tries', [StretchController::class, 'try']);
    Route::post('/session-lines/{sessionLine}/repro/cases', [StretchController::class, 'makeCase']);
    Route::get('/session-lines/{sessionLine}/file', [TimelineController::class, 'file']);
    Route::get('/session-lines/{sessionLine}/thumbnail', [TimelineController::class, 'thumbnail']);
});
