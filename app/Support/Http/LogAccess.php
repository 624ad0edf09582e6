<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Http\Request;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\Log;
use LucidStep\App\Models\User;
use Symfony\Component\HttpFoundation\Response;

/**
 * Keeps who signed in and out, what was refused, and what was changed of people, rights and settings, in a log of its own
 * (`storage/logs/security-….log`). It names people and things by id; nothing that somebody typed stands in it.
 */
final class LogAccess
{
    /** Areas whose every change counts. */
    private const AREAS = '/^LucidStep\\\\App\\\\Areas\\\\(People|Setup)\\\\/';

    /**
     * @param  \Closure(Request): Response  $next
     */
    public function handle(Request $request, \Closure $next): Response
    {
        $before = $request->user();
        $response = $next($request);
        $route = $request->route();
        $kind = $route instanceof Route ? self::kind($request, $route, $response->getStatusCode()) : null;
        if (null !== $kind) {
            $who = $before ?? $request->user();
            Log::channel('security')->info($kind, [
                'who' => $who instanceof User ? $who->id : null,
                'address' => $request->ip(),
                'operation' => $request->method() . ' ' . $route->uri(),
                'on' => self::on($route),
                'status' => $response->getStatusCode(),
            ]);
        }

        return $response;
    }

    private static function kind(Request $request, Route $route, int $status): ?string
    {
        $isSession = 'api/v1/session' === $route->uri();

        return match (true) {
            $isSession && $request->isMethod('POST') => $status < 300 ? 'signed-in' : 'sign-in-refused',
            $isSession && $request->isMethod('DELETE') => 'signed-out',
            \in_array($status, [403, 419, 421, 429], true) => 'refused',
            $status < 300 && !$request->isMethodSafe() && 1 === preg_match(self::AREAS, $route->getActionName()) => 'changed',
            default => null,
        };
    }

    /**
     * What the address names, by id.
     */
    private static function on(Route $route): ?string
    {
        foreach ($route->parameters() as $found) {
            if ($found instanceof \Illuminate\Database\Eloquent\Model) {
                return (string) $found->getKey();
            }
        }

        return null;
    }
}
