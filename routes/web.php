<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Route;
use LucidStep\App\Http\Controllers\PageController;
use LucidStep\App\Http\Controllers\UpController;

Route::get('/up', UpController::class)->withoutMiddleware('web');
Route::get('/{any?}', PageController::class)->where('any', '^(?!api/|practice|build/).*$')->name('login');
