<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Routing\Route;

/**
 * What the method behind a route says of itself by an attribute.
 */
final class RouteAttribute
{
    /**
     * @template T of object
     *
     * @param  class-string<T>  $attribute
     *
     * @return ?T null when the method does not carry it
     */
    public static function of(Route $route, string $attribute): ?object
    {
        [$class, $method] = explode('@', $route->getActionName()) + [1 => '__invoke'];

        return ((new \ReflectionMethod($class, $method))->getAttributes($attribute)[0] ?? null)?->newInstance();
    }
}
