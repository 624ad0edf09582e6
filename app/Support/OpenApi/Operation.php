<?php

declare(strict_types=1);

namespace LucidStep\App\Support\OpenApi;

use OpenApi\Attributes as OA;

/**
 * What the operations of the API have in common.
 */
final class Operation
{
    public static function id(string $method, string $path): string
    {
        return $method . str_replace(' ', '', ucwords(str_replace(['/', '-', '{', '}'], ' ', $path)));
    }

    /**
     * @param  array<string, string>  $query
     *
     * @return list<OA\Parameter>
     */
    public static function parameters(string $path, array $query, bool $writes): array
    {
        preg_match_all('/\{(\w+)\}/', $path, $names);
        $parameters = array_map(
            static fn(string $name): OA\Parameter => new OA\Parameter(
                name: $name,
                in: 'path',
                required: true,
                schema: new OA\Schema(type: 'string'),
            ),
            $names[1],
        );
        foreach ($query as $name => $why) {
            $parameters[] = new OA\Parameter(
                name: $name,
                in: 'query',
                description: $why,
                required: false,
                schema: new OA\Schema(type: 'string'),
            );
        }
        if ($writes) {
            $parameters[] = new OA\Parameter(
                name: 'Idempotency-Key',
                in: 'header',
                description: 'A UUIDv7 made on the device; the same key again returns the first answer.',
                required: false,
                schema: new OA\Schema(type: 'string', format: 'uuid'),
            );
        }

        return $parameters;
    }

    /**
     * @param  class-string|null  $body
     */
    public static function body(?string $body, bool $file): ?OA\RequestBody
    {
        return null === $body
            ? null
            : new OA\RequestBody(
                required: true,
                content: new OA\MediaType(
                    mediaType: $file ? 'multipart/form-data' : 'application/json',
                    schema: new OA\Schema(ref: '#/components/schemas/' . substr((string) strrchr($body, '\\'), 1)),
                ),
            );
    }

    /**
     * @param  class-string|null  $returns
     *
     * @return list<OA\Response>
     */
    public static function responses(?string $returns, bool $list, int $status): array
    {
        $ref = null === $returns ? null : '#/components/schemas/' . substr((string) strrchr($returns, '\\'), 1);
        $schema = match (true) {
            null === $ref => null,
            $list => new OA\Schema(type: 'array', items: new OA\Items(ref: $ref)),
            default => new OA\Schema(ref: $ref),
        };

        return [
            null === $schema
                ? new OA\Response(response: $status, description: 'Done')
                : new OA\Response(
                    response: $status,
                    description: 'Done',
                    content: new OA\MediaType(mediaType: 'application/json', schema: $schema),
                ),
            new OA\Response(
                response: 'default',
                description: 'A problem',
                content: new OA\MediaType(
                    mediaType: 'application/problem+json',
                    schema: new OA\Schema(ref: '#/components/schemas/Problem'),
                ),
            ),
        ];
    }
}
