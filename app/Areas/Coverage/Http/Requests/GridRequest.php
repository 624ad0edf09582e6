<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Http\Requests;

use Illuminate\Validation\Rule;

/**
 * Through which lens, and side by side of what, what requirements show is asked of.
 */
final class GridRequest extends LensRequest
{
    public const QUERY = [...parent::QUERY, 'by' => 'Its columns: "build", the newest of them, or "configuration"; left out: build'];

    public function rules(): array
    {
        return [...parent::rules(), 'by' => ['nullable', Rule::in(['build', 'configuration'])]];
    }

    /**
     * @return 'build'|'configuration'
     */
    public function by(): string
    {
        return 'configuration' === $this->validated('by') ? 'configuration' : 'build';
    }
}
