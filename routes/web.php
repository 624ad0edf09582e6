<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Route;
use LucidStep\App\Areas\Sessions\Http\Controllers\ObserverController;
use LucidStep\App\Support\Http\PageController;
use LucidStep\App\Support\Http\UpController;

Route::get('/up', UpController::class)->withoutMiddleware('web');
Route::get('/ready', [UpController::class, 'ready'])->withoutMiddleware('web');
Route::get('/observe.js', [ObserverController::class, 'script'])->withoutMiddleware('web');
// Without a session: the page is the same for all, and a guest's cookie that comes after signing in would sign out.
Route::get('/{any?}', PageController::class)->where('any', '^(?!api/|build/).*$')->name('login')->withoutMiddleware('web');
