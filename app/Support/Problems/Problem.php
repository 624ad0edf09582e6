<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Problems;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Contracts\Support\Responsable;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Database\QueryException;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Http\JsonResponse;
use Illuminate\Session\TokenMismatchException;
use Illuminate\Validation\ValidationException;
use LucidStep\Core\Record\NotCanonical;
use LucidStep\Core\Verdict\CannotFinish;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;

/**
 * An error as `application/problem+json` (RFC 9457), with errors by field path.
 */
final readonly class Problem implements Responsable
{
    /**
     * @param  array<string, list<string>>  $errors  messages by field path
     * @param  array<string, mixed>  $facts   further members
     * @param  array<string, string>  $headers
     */
    private function __construct(
        private int $status,
        private string $type,
        private string $title,
        private string $detail,
        private array $errors = [],
        private array $facts = [],
        private array $headers = [],
    ) {}

    public static function from(\Throwable $e): self
    {
        // The framework wraps these in an HTTP error that says less.
        $before = $e->getPrevious();
        $e = $before instanceof TokenMismatchException || $before instanceof AuthorizationException ? $before : $e;

        $away = Away::of($e);

        return match (true) {
            null !== $away => new self(
                503,
                'away',
                'Not to be reached now',
                "Nothing was changed: {$away[0]}. What you recorded waits on this device and is sent again by itself.",
                headers: ['Retry-After' => (string) $away[1]],
            ),
            $e instanceof UniqueConstraintViolationException => new self(
                409,
                'same-at-once',
                'Things have changed',
                'Somebody else made the same at this very moment. Nothing was changed. Load the page again and look.',
            ),
            $e instanceof QueryException && '23503' === ($e->errorInfo[0] ?? '') => new self(
                409,
                'gone-meanwhile',
                'Things have changed',
                'Something that this belongs to was taken away at this very moment. Nothing was changed. Load the page again and look.',
            ),
            $e instanceof AuthenticationException => new self(401, 'signed-out', 'Not signed in', 'Sign in to go on.'),
            $e instanceof TokenMismatchException => new self(
                419,
                'stale-page',
                'This page is out of date',
                'Nothing was changed. Load the page again and repeat the step.',
            ),
            $e instanceof AuthorizationException => new self(
                403,
                'not-allowed',
                'Not allowed',
                \in_array($e->getMessage(), ['', 'This action is unauthorized.'], true)
                    ? 'Your role in this project does not allow it.'
                    : $e->getMessage(),
            ),
            $e instanceof ModelNotFoundException => self::notFound(),
            $e instanceof ValidationException => new self(
                $e->status,
                'invalid',
                'Some of it cannot be taken',
                'Nothing was changed. See the fields.',
                self::messages($e),
            ),
            $e instanceof CannotFinish => new self(422, 'cannot-finish', 'The attempt cannot end this way', $e->getMessage(), [
                $e->field => [$e->getMessage()],
            ]),
            $e instanceof NotCanonical => new self(422, 'invalid', 'Some of it cannot be taken', $e->getMessage(), [
                ltrim($e->path, '$.') => ['This text holds characters that cannot be stored.'],
            ]),
            $e instanceof Conflict => new self($e->status, $e->problem, 'Things have changed', $e->getMessage(), [], $e->facts),
            $e instanceof HttpExceptionInterface && 404 === $e->getStatusCode() => self::notFound(),
            $e instanceof HttpExceptionInterface => new self(
                $e->getStatusCode(),
                'http',
                self::title($e->getStatusCode()),
                $e->getMessage(),
                headers: array_map(strval(...), $e->getHeaders()),
            ),
            default => new self(
                500,
                'fault',
                'Something went wrong here',
                config('app.debug') ? $e->getMessage() : 'The fault was written to the log. What you typed is kept on this device.',
            ),
        };
    }

    public static function notFound(): self
    {
        return new self(404, 'not-found', 'Not found', 'There is nothing here, or you may not see it.');
    }

    public function toResponse($request): JsonResponse
    {
        $body = [
            'type' => "urn:lucid-step:problem:{$this->type}",
            'title' => $this->title,
            'status' => $this->status,
            'detail' => $this->detail,
            ...$this->facts,
        ];
        if ([] !== $this->errors) {
            $body['errors'] = $this->errors;
        }

        return new JsonResponse($body, $this->status, ['Content-Type' => 'application/problem+json', ...$this->headers]);
    }

    /**
     * @return array<string, list<string>>
     */
    private static function messages(ValidationException $e): array
    {
        return array_map(static fn(array $messages): array => array_values($messages), $e->errors());
    }

    private static function title(int $status): string
    {
        return match ($status) {
            400 => 'Not to be read',
            405 => 'Not done this way',
            413 => 'Too large',
            429 => 'Too many tries',
            503 => 'Not ready',
            default => 'Not possible',
        };
    }
}
