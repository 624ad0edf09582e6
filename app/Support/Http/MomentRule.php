<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Contracts\Validation\ValidationRule;

/**
 * A moment that is one for everybody: ISO 8601 with the offset of its clock. Without one it would be another in each time zone.
 */
final class MomentRule implements ValidationRule
{
    private const ISO = '/^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d([.,]\d{1,9})?)?(Z|[+-]\d\d:?\d\d)$/Di';

    public function validate(string $attribute, mixed $value, \Closure $fail): void
    {
        if (!\is_string($value) || 1 !== preg_match(self::ISO, $value)) {
            $fail('Write a moment with the offset of its clock, such as 2026-11-29T09:00:00+01:00 or 2026-11-29T08:00:00Z.');
        }
    }
}
