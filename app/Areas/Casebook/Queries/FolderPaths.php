<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Queries;

use LucidStep\App\Models\Folder;
use LucidStep\App\Models\Project;

/**
 * The folders of a project by their paths.
 */
final class FolderPaths
{
    /** @var array<string, string>|null ids by path in lower case */
    private ?array $byPath = null;

    /** @var array<string, list<string>> names by id */
    private array $paths = [];

    /** @var list<string> ids of the folders that were made on the way to a path */
    public array $made = [];

    public function __construct(private readonly Project $project) {}

    /**
     * @return list<list<string>> every path, outermost first
     */
    public function all(): array
    {
        $this->read();
        $paths = array_values($this->paths);
        sort($paths);

        return $paths;
    }

    /**
     * The folder at the end of a path; what is missing of it is made.
     *
     * @param  list<string>  $path outermost first
     */
    public function at(array $path): ?string
    {
        $this->read();
        $id = null;
        $done = [];
        foreach ($path as $name) {
            $done[] = $name;
            $key = self::key($done);
            if (!isset($this->byPath[$key])) {
                $position = 1 + (int) Folder::query()->where('project_id', $this->project->id)->where('parent_id', $id)->max('position');
                $folder = Folder::query()->create([
                    'project_id' => $this->project->id,
                    'parent_id' => $id,
                    'name' => $name,
                    'position' => $position,
                ]);
                $this->made[] = $folder->id;
                $this->byPath[$key] = $folder->id;
                $this->paths[$folder->id] = $done;
            }
            $id = $this->byPath[$key];
        }

        return $id;
    }

    /**
     * @param  list<string>  $path
     */
    public function find(array $path): ?string
    {
        $this->read();

        return $this->byPath[self::key($path)] ?? null;
    }

    /**
     * @return list<string> outermost first
     */
    public function path(?string $id): array
    {
        $this->read();

        return null === $id ? [] : $this->paths[$id] ?? [];
    }

    /**
     * A folder and all below it.
     *
     * @return list<string>
     */
    public function below(string $id): array
    {
        $this->read();
        $path = $this->paths[$id] ?? null;
        if (null === $path) {
            return [$id];
        }

        return array_map(
            strval(...),
            array_keys(array_filter($this->paths, static fn(array $p): bool => \array_slice($p, 0, \count($path)) === $path)),
        );
    }

    /**
     * @param  list<string>  $path
     */
    private static function key(array $path): string
    {
        return implode("\n", array_map(mb_strtolower(...), $path));
    }

    private function read(): void
    {
        if (null !== $this->byPath) {
            return;
        }
        $this->byPath = [];
        $folders = Folder::query()->where('project_id', $this->project->id)->whereNull('binned_at')->get()->keyBy('id');
        foreach ($folders as $folder) {
            $path = [];
            for ($f = $folder; null !== $f && \count($path) < 20; $f = $folders[$f->parent_id ?? ''] ?? null) {
                array_unshift($path, $f->name);
            }
            $this->paths[$folder->id] = $path;
            $this->byPath[self::key($path)] = $folder->id;
        }
    }
}
