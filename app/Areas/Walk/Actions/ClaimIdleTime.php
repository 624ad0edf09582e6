<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\CommandHandler;
use LucidStep\App\Areas\Walk\Commands\IdleTimeCommand;
use LucidStep\App\Support\Record\Journal;

/**
 * Keeps what the tester said of a time without a sign of them: how much of it was work.
 *
 * @implements CommandHandler<IdleTimeCommand>
 */
final readonly class ClaimIdleTime implements CommandHandler
{
    public function __construct(private Journal $journal) {}

    public function apply(AttemptCommand $command, CommandContext $context): void
    {
        $counted = min($command->countedMs, $command->awayMs);
        $context->attempt->active_ms += $counted;
        $said = ['away_ms' => $command->awayMs, 'counted_ms' => $counted];
        $this->journal->append($context->attempt, $context->actor, 'away_decided', $said, $context->stamp);
    }
}
