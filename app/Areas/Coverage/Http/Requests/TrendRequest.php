<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Http\Requests;

/**
 * Through which lens, and how far back, what was proven is asked of.
 */
final class TrendRequest extends LensRequest
{
    public const QUERY = [...parent::QUERY, 'days' => 'As many days back, 7 to 366; left out: 30'];

    public function rules(): array
    {
        return [...parent::rules(), 'days' => ['nullable', 'integer', 'between:7,366']];
    }

    public function days(): int
    {
        return $this->filled('days') ? $this->integer('days') : 30;
    }
}
