<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

/**
 * Which part of what was walked coverage is asked of; null: all of it.
 */
final readonly class CoverageLens
{
    /**
     * @param  ?string  $release       id
     * @param  ?string  $build         id
     * @param  ?string  $configuration id
     * @param  ?string  $milestone     id
     */
    public function __construct(
        public ?string $release = null,
        public ?string $build = null,
        public ?string $configuration = null,
        public ?string $milestone = null,
    ) {}

    /**
     * As conditions of a query.
     *
     * @param  string  $build  column with the build
     * @param  string  $configuration column
     * @param  string  $milestone column
     *
     * @return array{string, list<string>} SQL that goes on after a condition, and what it binds
     */
    public function conditions(string $build, string $configuration, string $milestone): array
    {
        $parts = array_filter([
            "{$build} in (select id from builds where release_id = ?)" => $this->release,
            "{$build} = ?" => $this->build,
            "{$configuration} = ?" => $this->configuration,
            "{$milestone} = ?" => $this->milestone,
        ]);

        return [implode('', array_map(static fn(string $p): string => " and {$p}", array_keys($parts))), array_values($parts)];
    }
}
