<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Http\Request;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\Actor;
use Symfony\Component\HttpFoundation\Response;

/**
 * Tells the database who writes, before they do.
 */
final class NameActor
{
    /**
     * @param  \Closure(Request): Response  $next
     */
    public function handle(Request $request, \Closure $next): Response
    {
        $user = $request->user();
        if (!$request->isMethodSafe() && $user instanceof User) {
            Actor::is($user->id);
        }

        return $next($request);
    }
}
