<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Illuminate\Testing\TestResponse;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;

/**
 * Compares answers with the API's description.
 */
trait DescribedAnswers
{
    /**
     * What an answer has otherwise than its schema says; null when it fits.
     *
     * @param  array<string, mixed>  $components of the description
     * @param  array<string, mixed>  $schema
     * @param  string  $what names it among all that are compared
     */
    protected static function misfit(array $components, array $schema, string $json, string $what): ?string
    {
        $whole = json_decode(
            (string) json_encode(['$id' => 'https://lucid-step.test/' . md5($what), ...$schema, 'components' => $components]),
        );
        $error = (new Validator())->validate(json_decode($json), $whole)->error();

        return null === $error ? null : "{$what}: " . json_encode((new ErrorFormatter())->format($error));
    }

    /**
     * What a success has otherwise than its operation says: the status, or the shape of the answer.
     *
     * @param  array<string, mixed>  $components of the description
     * @param  array<string, mixed>  $operation
     * @param  TestResponse<\Symfony\Component\HttpFoundation\Response>  $answer
     */
    protected static function misfitOf(array $components, array $operation, TestResponse $answer, string $what): ?string
    {
        $status = $answer->getStatusCode();
        // Kept for a lead to decide: every act of the walk may be answered so.
        if (202 === $status && !isset($operation['responses']['202'])) {
            return false === $answer->json('applied') ? null : "{$what}: 202, though it was applied";
        }
        $described = $operation['responses'][(string) $status] ?? null;
        if (null === $described) {
            return "{$what}: {$status} is not described";
        }
        $schema = $described['content']['application/json']['schema'] ?? null;
        $content = (string) $answer->getContent();
        if (null === $schema) {
            return '' === $content ? null : "{$what}: an answer that is not described";
        }

        return self::misfit($components, $schema, $content, "{$what} {$status}");
    }
}
