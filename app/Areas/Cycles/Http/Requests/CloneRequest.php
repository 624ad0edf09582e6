<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Requests;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Data\CloneOptions;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Milestone;
use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A cycle or a milestone again.
 */
#[
    OA\Schema(
        required: ['name'],
        properties: [
            new OA\Property(property: 'name', type: 'string'),
            new OA\Property(property: 'starts_on', type: 'string', format: 'date'),
            new OA\Property(property: 'due_on', type: 'string', format: 'date'),
            new OA\Property(property: 'which', type: 'string', enum: ['all', 'failed', 'failed_blocked', 'not_run', 'open']),
            new OA\Property(property: 'build_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(
                property: 'milestone_id',
                description: 'Of a cycle: where it goes; null: into none. Left out: where it is.',
                type: 'string',
                format: 'uuid',
                nullable: true,
            ),
            new OA\Property(property: 'off_days', type: 'boolean'),
            new OA\Property(property: 'people', type: 'boolean'),
            new OA\Property(property: 'preview', type: 'boolean'),
        ],
    ),
]
final class CloneRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:200'],
            'starts_on' => ['nullable', 'date_format:Y-m-d', 'required_without:due_on'],
            'due_on' => ['nullable', 'date_format:Y-m-d'],
            'which' => ['nullable', 'in:all,failed,failed_blocked,not_run,open'],
            'build_id' => ['nullable', 'uuid'],
            'milestone_id' => ['nullable', 'uuid'],
            'off_days' => ['nullable', 'boolean'],
            'people' => ['nullable', 'boolean'],
            'preview' => ['nullable', 'boolean'],
        ];
    }

    /**
     * @throws ValidationException when it is not said when the clone of a cycle starts, or the one of a milestone is due
     */
    public function options(Cycle|Milestone $what): CloneOptions
    {
        [$date, $missing] =
            $what instanceof Cycle ? ['starts_on', 'Say when the new cycle starts.'] : ['due_on', 'Say when the new milestone is due.'];
        if (!$this->filled($date)) {
            throw ValidationException::withMessages([$date => $missing]);
        }

        return new CloneOptions(
            $this->string('name')->trim()->toString(),
            $this->string($date)->toString(),
            $this->string('which', 'all')->toString(),
            $this->filled('build_id') ? $this->string('build_id')->toString() : null,
            $this->boolean('off_days'),
            $this->boolean('people', true),
            !$this->has('milestone_id'),
            $this->filled('milestone_id') ? $this->string('milestone_id')->toString() : null,
        );
    }
}
