<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Takes a body that is called plain text as JSON: a page of another origin sends it so, as it needs no leave of its browser then.
 */
final class PlainJson
{
    /**
     * @param  \Closure(Request): Response  $next
     */
    public function handle(Request $request, \Closure $next): Response
    {
        if (str_starts_with((string) $request->headers->get('Content-Type'), 'text/plain')) {
            $request->headers->set('Content-Type', 'application/json');
            $request->server->set('CONTENT_TYPE', 'application/json');
        }

        return $next($request);
    }
}
