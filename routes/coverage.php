<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Route;
use LucidStep\App\Areas\Coverage\Http\Controllers\CoverageController;
use LucidStep\App\Areas\Coverage\Http\Controllers\RequirementController;
use LucidStep\App\Areas\Coverage\Http\Controllers\RequirementExchangeController;
use LucidStep\App\Areas\Coverage\Http\Controllers\TraceController;

// Requirements and what is proven of them: within the group of those who have signed in.
Route::get('/projects/{project}/coverage', [CoverageController::class, 'tree']);
Route::get('/projects/{project}/coverage/grid', [CoverageController::class, 'grid']);
Route::get('/projects/{project}/coverage/trend', [CoverageController::class, 'trend']);
Route::get('/projects/{project}/trace', [TraceController::class, 'show']);
Route::get('/projects/{project}/trace-export', [TraceController::class, 'export']);
Route::post('/projects/{project}/requirements', [RequirementController::class, 'store']);
Route::get('/requirements/{requirement}', [RequirementController::class, 'show']);
Route::put('/requirements/{requirement}', [RequirementController::class, 'update']);
Route::delete('/requirements/{requirement}', [RequirementController::class, 'drop']);
Route::post('/requirements/{requirement}/moves', [RequirementController::class, 'move']);
Route::post('/requirements/{requirement}/restorations', [RequirementController::class, 'restore']);
Route::post('/requirements/{requirement}/confirmations', [RequirementController::class, 'confirm']);
Route::get('/projects/{project}/requirement-export', [RequirementExchangeController::class, 'export']);
Route::get('/projects/{project}/requirement-imports', [RequirementExchangeController::class, 'index']);
Route::post('/projects/{project}/requirement-imports', [RequirementExchangeController::class, 'import']);
Route::post('/requirement-imports/{requirementImport}/undo', [RequirementExchangeController::class, 'undo']);
