<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;

/**
 * Says what an attempt was really walked on: build, configuration, environment, and more of it in words. What is not said stays.
 */
final readonly class EnvironmentCommand implements AttemptCommand
{
    /**
     * @param  array{build_id?: ?string, configuration_id?: ?string, environment_id?: ?string, environment?: string}  $on what is said
     */
    public function __construct(public array $on) {}

    public static function fromPayload(Payload $payload): self
    {
        $on = [];
        foreach (['build_id', 'configuration_id', 'environment_id'] as $id) {
            if ($payload->has($id)) {
                $on[$id] = $payload->textOrNull($id);
            }
        }

        return new self($payload->has('environment') ? [...$on, 'environment' => $payload->text('environment')] : $on);
    }

    public function kind(): string
    {
        return 'surroundings_said';
    }

    public function payload(): array
    {
        return $this->on;
    }

    public function masked(Mask $mask): self
    {
        return new self(
            isset($this->on['environment']) ? [...$this->on, 'environment' => $mask->text($this->on['environment'])] : $this->on,
        );
    }

    public function description(): string
    {
        return CommandWords::at(null, null, 'what it was walked on' . CommandWords::quoted($this->on['environment'] ?? ''));
    }
}
