<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Sessions\Queries\ReadFigures;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Http\ApiRequest;

/**
 * Which figures are asked for.
 */
final class FiguresRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'by' => ['nullable', 'in:' . implode(',', ReadFigures::BY)],
            'from' => ['nullable', 'date_format:Y-m-d'],
            'until' => ['nullable', 'date_format:Y-m-d'],
        ];
    }

    /**
     * @return value-of<ReadFigures::BY>
     */
    public function by(): string
    {
        foreach (ReadFigures::BY as $by) {
            if ($by === $this->query('by')) {
                return $by;
            }
        }

        return 'folder';
    }

    /**
     * A day as the project counts days.
     *
     * @param  int  $later days
     */
    public function day(string $name, Project $project, int $later = 0): ?Carbon
    {
        $day = $this->query($name);

        return \is_string($day) && '' !== $day
            ? Carbon::createFromFormat('!Y-m-d', $day, $project->time_zone)?->addDays($later)->utc()
            : null;
    }
}
