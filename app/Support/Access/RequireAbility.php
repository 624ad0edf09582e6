<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Access;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Http\Request;
use LucidStep\App\Models\User;
use Symfony\Component\HttpFoundation\Response;

/**
 * Lets a program do what its token is for: `read`, or `write` as well. Whoever has signed in may do what their role may.
 */
final class RequireAbility
{
    /**
     * @param  \Closure(Request): Response  $next
     *
     * @throws AuthorizationException when the token is not for this
     */
    public function handle(Request $request, \Closure $next): Response
    {
        $ability = $request->isMethodSafe() ? 'read' : 'write';
        $user = $request->user();

        return $user instanceof User && $user->tokenCan($ability)
            ? $next($request)
            : throw new AuthorizationException("This token may not {$ability}.");
    }
}
