<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Contracts\Validation\ValidationRule;
use Illuminate\Support\Str;

/**
 * A list of ids that may be thousands long: checked in one go, since a rule for each takes seconds.
 */
final class UuidList implements ValidationRule
{
    public function validate(string $attribute, mixed $value, \Closure $fail): void
    {
        foreach (\is_array($value) ? $value : [] as $id) {
            if (!\is_string($id) || !Str::isUuid($id)) {
                $fail('This holds something that is no id.');

                return;
            }
        }
    }
}
