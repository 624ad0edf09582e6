<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Revisions;

use Illuminate\Validation\ValidationException;

/**
 * Whoever replaces something whole says which state of it they saw, by its fingerprint: it comes with every answer that shows
 * it. So what another saved meanwhile is never overwritten unseen.
 */
final class Seen
{
    /**
     * @param  mixed  $state what people see of it, such as JSON takes
     */
    public static function of(mixed $state): string
    {
        return substr(hash('sha256', json_encode($state, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE)), 0, 16);
    }

    /**
     * To be asked once what is replaced is locked.
     *
     * @param  ?string  $seen the fingerprint that the person sent
     * @param  string  $what such as `this list`
     *
     * @throws ValidationException when they sent none
     * @throws ChangedMeanwhile when it is another state by now
     */
    public static function check(?string $seen, mixed $state, string $what): void
    {
        if (null === $seen || '' === $seen) {
            throw ValidationException::withMessages([
                'seen' => 'Say which state you saw: its fingerprint stands beside it in the answer that shows it.',
            ]);
        }
        $now = self::of($state);
        if ($now !== $seen) {
            throw ChangedMeanwhile::of($what, $now);
        }
    }
}
