<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\Environment;

/**
 * Whether a build, a configuration and an environment that somebody names are the project's own.
 */
final class ProjectReferences
{
    /**
     * @throws ValidationException by field
     */
    public static function check(string $project, ?string $build, ?string $configuration, ?string $environment = null): void
    {
        if (null !== $build && !Build::query()->where('project_id', $project)->whereKey($build)->exists()) {
            throw ValidationException::withMessages(['build_id' => 'This build is not there any more.']);
        }
        if (null !== $configuration && !Configuration::query()->where('project_id', $project)->whereKey($configuration)->exists()) {
            throw ValidationException::withMessages(['configuration_id' => 'This configuration is not there any more.']);
        }
        if (null !== $environment && !Environment::query()->where('project_id', $project)->whereKey($environment)->exists()) {
            throw ValidationException::withMessages(['environment_id' => 'This environment is not there any more.']);
        }
    }
}
