<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Contracts\View\View;

/**
 * The one page of the application; everything in it is drawn by the front end.
 */
final class PageController
{
    public function __invoke(): View
    {
        return view('app');
    }
}
