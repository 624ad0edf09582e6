<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\HttpException;

/**
 * Answers only under the names that the installation has: whoever makes a browser believe in another gets nothing, and no
 * address is ever made of what a request says of itself.
 */
final class KnownHost
{
    private const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];

    /**
     * @param  \Closure(Request): Response  $next
     *
     * @throws HttpException 421 for another name
     */
    public function handle(Request $request, \Closure $next): Response
    {
        return \in_array($request->getHost(), self::names(), true)
            ? $next($request)
            : throw new HttpException(421, 'This installation is not called that.');
    }

    /**
     * @return array<array-key, string>
     */
    public static function names(): array
    {
        $name = (string) parse_url((string) config('app.url'), \PHP_URL_HOST);

        return [
            $name,
            ...array_filter((array) config('lucid.hosts'), is_string(...)),
            ...\in_array($name, self::LOOPBACK, true) ? self::LOOPBACK : [],
        ];
    }
}
