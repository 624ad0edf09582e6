<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Http\Requests;

use Illuminate\Validation\Rule;
use LucidStep\App\Areas\Coverage\Data\TraceKind;
use LucidStep\App\Support\Http\ApiRequest;

/**
 * What a trace begins from.
 */
final class TraceRequest extends ApiRequest
{
    public const QUERY = [
        'kind' => 'requirement, case, cycle, entry, attempt, defect, session or evidence',
        'id' => 'Its key, or its id',
    ];

    public function rules(): array
    {
        return ['kind' => ['required', Rule::enum(TraceKind::class)], 'id' => ['required', 'string', 'max:64']];
    }

    public function kind(): TraceKind
    {
        return TraceKind::from($this->validated('kind'));
    }

    public function id(): string
    {
        return $this->validated('id');
    }
}
