<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Http\Request;
use Illuminate\Validation\ValidationException;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\BadRequestHttpException;
use Symfony\Component\HttpKernel\Exception\HttpException;

/**
 * Refuses what no field can take, wherever it stands, before any rule looks at it: JSON that is none, numbers beyond all numbers,
 * text with U+0000 or that is no UTF-8. The database would refuse it too, but without saying where.
 */
final class ReadableInput
{
    /** Up to here a float is the integer it looks like. */
    private const LARGEST = 9_007_199_254_740_991;

    /** A body of JSON takes at most so many bytes, and so many lists and objects: the largest table of data has half of each. */
    private const MOST_BYTES = 12 * 1024 * 1024;
    private const MOST_LISTS = 150_000;

    /** So many fields are named at once. */
    private const NAMED = 20;

    /**
     * @param  \Closure(Request): Response  $next
     *
     * @throws BadRequestHttpException when the body is no JSON
     * @throws ValidationException     by field
     */
    public function handle(Request $request, \Closure $next): Response
    {
        $isJson = $request->isJson();
        if ($isJson && self::isTooLarge($request->getContent())) {
            throw new HttpException(413, 'This holds more than can be taken in at once. Send it in parts.');
        }
        if ($isJson && !self::isObject($request)) {
            throw new BadRequestHttpException('The body is not a JSON object. Nothing was changed.');
        }
        $faults = self::faults($request->input());
        if ([] !== $faults) {
            throw ValidationException::withMessages(\array_slice($faults, 0, self::NAMED));
        }

        if ($isJson) {
            $request->json()->replace(self::whole($request->json()->all()));
        }

        return $next($request);
    }

    /**
     * Told before it is decoded: that takes a hundred times the room.
     */
    private static function isTooLarge(string $body): bool
    {
        return \strlen($body) > self::MOST_BYTES || substr_count($body, '[') + substr_count($body, '{') > self::MOST_LISTS;
    }

    /**
     * Whether the body is an object, a list, or nothing at all. What was read as nothing is read again: it may be no JSON.
     */
    private static function isObject(Request $request): bool
    {
        $body = trim($request->getContent());
        $opens = '' !== $body && ('{' === $body[0] || '[' === $body[0]);

        return '' === $body || 'null' === $body || ($opens && ([] !== $request->json()->all() || \is_array(json_decode($body, true))));
    }

    /**
     * JSON knows no integers: 1.0 is the number 1.
     *
     * @param  array<array-key, mixed>  $values
     *
     * @return array<array-key, mixed>
     */
    private static function whole(array $values): array
    {
        return array_map(
            static fn(mixed $v): mixed => match (true) {
                \is_array($v) => self::whole($v),
                \is_float($v) && floor($v) === $v && abs($v) <= self::LARGEST => (int) $v,
                default => $v,
            },
            $values,
        );
    }

    /**
     * @param  array<array-key, mixed>  $values
     *
     * @return array<string, string> by field path
     */
    private static function faults(array $values, string $under = ''): array
    {
        $faults = [];
        foreach ($values as $key => $value) {
            $path = $under . (self::isText((string) $key) ? $key : '?');
            $fault = match (true) {
                !self::isText((string) $key) => 'The name of this field holds characters that cannot be stored.',
                \is_float($value) && !is_finite($value) => 'This number is too large.',
                \is_string($value) && !self::isText($value) => 'This text holds characters that cannot be stored.',
                default => null,
            };
            if (null !== $fault) {
                $faults[$path] = $fault;
            } elseif (\is_array($value)) {
                $faults += self::faults($value, "{$path}.");
            }
        }

        return $faults;
    }

    private static function isText(string $value): bool
    {
        return !str_contains($value, "\0") && mb_check_encoding($value, 'UTF-8');
    }
}
