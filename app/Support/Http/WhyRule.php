<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Contracts\Validation\ValidationRule;
use LucidStep\Core\Text\Why;

/**
 * A word of why that says something.
 */
final class WhyRule implements ValidationRule
{
    public function validate(string $attribute, mixed $value, \Closure $fail): void
    {
        if (!\is_string($value) || !Why::isGiven($value)) {
            $fail('Say in a few words why.');
        }
    }
}
