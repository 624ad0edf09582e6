<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;

/**
 * Says what an attempt was really walked on: build, configuration, and the environment in words.
 */
final readonly class EnvironmentCommand implements AttemptCommand
{
    public function __construct(public ?string $buildId, public ?string $configurationId, public string $environment) {}

    public static function fromPayload(Payload $payload): self
    {
        return new self($payload->textOrNull('build_id'), $payload->textOrNull('configuration_id'), $payload->text('environment'));
    }

    public function kind(): string
    {
        return 'surroundings_said';
    }

    public function payload(): array
    {
        return ['build_id' => $this->buildId, 'configuration_id' => $this->configurationId, 'environment' => $this->environment];
    }

    public function masked(Mask $mask): self
    {
        return new self($this->buildId, $this->configurationId, $mask->text($this->environment));
    }

    public function description(): string
    {
        return CommandWords::at(null, null, 'what it was walked on' . CommandWords::quoted($this->environment));
    }
}
