<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Contracts\Cache\LockTimeoutException;
use Illuminate\Http\Request;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\Cache;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;

/**
 * What is costly waits its turn: one at a time for each person. Whoever asks for another meanwhile waits a little, and is then
 * told to come again.
 */
final class OneAtATime
{
    /** Seconds for which another waits, and after which one that never ended does not count any more. */
    private const PATIENCE = 3;
    private const LONGEST = 120;

    /**
     * @param  \Closure(Request): Response  $next
     *
     * @throws TooManyRequestsHttpException when another of the same person goes on for longer than that
     */
    public function handle(Request $request, \Closure $next): Response
    {
        if (!self::isCostly($request)) {
            return $next($request);
        }
        $lock = Cache::lock('costly:' . ($request->user()?->getAuthIdentifier() ?? $request->ip()), self::LONGEST);
        try {
            $lock->block(self::PATIENCE);
        } catch (LockTimeoutException) {
            throw new TooManyRequestsHttpException(self::PATIENCE, 'Something else that you asked for is still being worked out.');
        }
        try {
            return $next($request);
        } finally {
            $lock->release();
        }
    }

    public static function isCostly(Request $request): bool
    {
        $route = $request->route();

        return $route instanceof Route && null !== RouteAttribute::of($route, Costly::class);
    }
}
