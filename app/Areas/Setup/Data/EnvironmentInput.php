<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

/**
 * An environment as somebody wrote it.
 */
final readonly class EnvironmentInput
{
    /**
     * @param  ?string  $id of the one that is changed; null for a new one
     * @param  bool  $observed whether its pages may report what is done on them to a session
     */
    public function __construct(
        public ?string $id,
        public string $name,
        public string $address,
        public ?string $buildId,
        public string $notes,
        public bool $observed = false,
    ) {}
}
