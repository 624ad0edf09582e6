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
     * @param  ?string  $at            a moment of the past, with its zone: what was so before it; null: now
     */
    public function __construct(
        public ?string $release = null,
        public ?string $build = null,
        public ?string $configuration = null,
        public ?string $milestone = null,
        public ?string $at = null,
    ) {}

    public function at(?string $moment): self
    {
        return new self($this->release, $this->build, $this->configuration, $this->milestone, $moment);
    }

    /**
     * As conditions of a query, which go on after another one; what they bind, {@see bindings} names.
     *
     * @param  string  $build  column with the build
     * @param  string  $configuration column
     * @param  string  $milestone column
     */
    public function conditions(string $build, string $configuration, string $milestone): string
    {
        return implode(
            '',
            array_filter([
                null === $this->release ? '' : " and {$build} in (select id from builds where release_id = :release)",
                null === $this->build ? '' : " and {$build} = :build",
                null === $this->configuration ? '' : " and {$configuration} = :configuration",
                null === $this->milestone ? '' : " and {$milestone} = :milestone",
            ]),
        );
    }

    /**
     * @return array<string, string> by name
     */
    public function bindings(): array
    {
        return array_filter(
            [
                'release' => $this->release,
                'build' => $this->build,
                'configuration' => $this->configuration,
                'milestone' => $this->milestone,
                'at' => $this->at,
            ],
            static fn(?string $v): bool => null !== $v,
        );
    }
}
