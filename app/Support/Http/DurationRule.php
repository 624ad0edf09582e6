<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Contracts\Validation\ValidationRule;
use LucidStep\Core\Forecast\Duration;
use LucidStep\Core\Forecast\NotADuration;

/**
 * A length of time as people write it.
 */
final class DurationRule implements ValidationRule
{
    public function validate(string $attribute, mixed $value, \Closure $fail): void
    {
        try {
            Duration::fromText(\is_string($value) ? $value : '');
        } catch (NotADuration $e) {
            $fail($e->getMessage());
        }
    }
}
