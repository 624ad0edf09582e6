<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Access;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use LucidStep\App\Models\Project;

/**
 * Finds the project of something that an address has let in already, once per request.
 */
final class ProjectLookup
{
    /** @var array<string, Project> */
    private array $known = [];

    /**
     * @throws ModelNotFoundException when there is no such project
     */
    public static function find(string $id): Project
    {
        return app(self::class)->get($id);
    }

    /**
     * @throws ModelNotFoundException when no project has this code
     */
    public static function byCode(string $code): Project
    {
        return Project::query()->where('code', $code)->firstOrFail();
    }

    private function get(string $id): Project
    {
        return $this->known[$id] ??= Project::query()->findOrFail($id);
    }
}
