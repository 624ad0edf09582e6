<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use LucidStep\App\Areas\Setup\Queries\ProjectReferences;
use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\CommandHandler;
use LucidStep\App\Areas\Walk\Commands\EnvironmentCommand;
use LucidStep\App\Support\Record\Journal;

/**
 * Says what an attempt was really walked on: build, configuration, environment, and more of it in words.
 *
 * @implements CommandHandler<EnvironmentCommand>
 */
final readonly class RecordEnvironment implements CommandHandler
{
    public function __construct(private Journal $journal) {}

    public function apply(AttemptCommand $command, CommandContext $context): void
    {
        $attempt = $context->attempt;
        ProjectReferences::check(
            $attempt->project_id,
            $command->on['build_id'] ?? null,
            $command->on['configuration_id'] ?? null,
            $command->on['environment_id'] ?? null,
        );
        $attempt->fill($command->on);
        $this->journal->append(
            $attempt,
            $context->actor,
            'surroundings_said',
            [
                'build' => $attempt->build_id,
                'configuration' => $attempt->configuration_id,
                'environment_id' => $attempt->environment_id,
                'environment' => $attempt->environment,
            ],
            $context->stamp,
        );
    }
}
