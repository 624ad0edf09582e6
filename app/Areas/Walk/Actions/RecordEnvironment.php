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
 * Says what an attempt was really walked on: build, configuration, and the environment in words.
 *
 * @implements CommandHandler<EnvironmentCommand>
 */
final readonly class RecordEnvironment implements CommandHandler
{
    public function __construct(private Journal $journal) {}

    public function apply(AttemptCommand $command, CommandContext $context): void
    {
        ProjectReferences::check($context->attempt->project_id, $command->buildId, $command->configurationId);
        $context->attempt->fill([
            'build_id' => $command->buildId,
            'configuration_id' => $command->configurationId,
            'environment' => $command->environment,
        ]);
        $this->journal->append(
            $context->attempt,
            $context->actor,
            'surroundings_said',
            [
                'build' => $command->buildId,
                'configuration' => $command->configurationId,
                'environment' => $command->environment,
            ],
            $context->stamp,
        );
    }
}
