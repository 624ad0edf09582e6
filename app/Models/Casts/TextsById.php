<?php

declare(strict_types=1);

namespace LucidStep\App\Models\Casts;

use Illuminate\Contracts\Database\Eloquent\CastsAttributes;
use Illuminate\Database\Eloquent\Model;

/**
 * Texts by an id, kept as a JSON object also where there is none: an empty list would be something else to the database.
 *
 * @implements CastsAttributes<array<string, string>, array<string, string>>
 */
final class TextsById implements CastsAttributes
{
    /**
     * @param  array<string, mixed>  $attributes
     *
     * @return array<string, string>
     */
    public function get(Model $model, string $key, mixed $value, array $attributes): array
    {
        $texts = \is_string($value) ? json_decode($value, true, 4, \JSON_THROW_ON_ERROR) : [];

        return \is_array($texts) ? array_filter($texts, is_string(...)) : [];
    }

    /**
     * @param  array<string, mixed>  $attributes
     */
    public function set(Model $model, string $key, mixed $value, array $attributes): string
    {
        return json_encode((object) $value, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE);
    }
}
