<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Http\Requests;

use LucidStep\App\Areas\Coverage\Queries\CoverageLens;
use LucidStep\App\Support\Http\ApiRequest;

/**
 * Which part of what was walked is asked of.
 */
final class LensRequest extends ApiRequest
{
    public const QUERY = [
        'release' => 'Only what was walked on builds of this release (id)',
        'build' => 'Only on this build (id)',
        'configuration' => 'Only on this configuration (id)',
        'milestone' => 'Only in cycles of this milestone (id)',
    ];

    public function rules(): array
    {
        return array_map(static fn(): array => ['nullable', 'uuid'], self::QUERY);
    }

    public function lens(): CoverageLens
    {
        return new CoverageLens(
            $this->validated('release'),
            $this->validated('build'),
            $this->validated('configuration'),
            $this->validated('milestone'),
        );
    }
}
