<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Http\Requests;

use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Coverage\Queries\CoverageLens;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Http\ApiRequest;

/**
 * Which part of what was walked is asked of, and as of when.
 */
class LensRequest extends ApiRequest
{
    public const QUERY = [
        'release' => 'Only what was walked on builds of this release (id)',
        'build' => 'Only on this build (id)',
        'configuration' => 'Only on this configuration (id)',
        'milestone' => 'Only in cycles of this milestone (id)',
        'as_of' => 'As it was at the end of this day (YYYY-MM-DD) in the zone of the project; left out: now',
    ];

    public function rules(): array
    {
        return [
            ...array_fill_keys(['release', 'build', 'configuration', 'milestone'], ['nullable', 'uuid']),
            'as_of' => ['nullable', 'date_format:Y-m-d', 'after:1999-12-31'],
        ];
    }

    /**
     * @throws ValidationException when a day to come is asked of
     */
    public function lens(Project $project): CoverageLens
    {
        $day = $this->validated('as_of');
        $end = null === $day ? null : Carbon::parse($day, $project->time_zone)->addDay();
        if (null !== $end && $end->copy()->subDay()->isFuture()) {
            throw ValidationException::withMessages(['as_of' => 'This day is still to come.']);
        }

        return new CoverageLens(
            $this->validated('release'),
            $this->validated('build'),
            $this->validated('configuration'),
            $this->validated('milestone'),
            $end?->isPast() ? $end->format('Y-m-d H:i:s.uP') : null,
        );
    }
}
