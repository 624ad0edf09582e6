<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use LucidStep\App\Areas\Defects\Actions\SettleRetests;
use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\CommandRegistry;
use LucidStep\App\Areas\Walk\Commands\HasFollowUp;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\Core\Verdict\AttemptState;

/**
 * Applies a command to a locked attempt and brings its entry up to date. The one way in which anything recorded takes
 * effect: in time, late, accepted by a lead, or from the cycle's list.
 */
final readonly class ApplyCommand
{
    public function __construct(private CommandRegistry $commands, private RefreshEntry $refresh, private SettleRetests $settle) {}

    /**
     * @param  ?\Closure(Attempt): void  $afterwards what else is written into the attempt before it is saved
     */
    public function __invoke(AttemptCommand $command, CommandContext $context, Entry $entry, ?\Closure $afterwards = null): void
    {
        $handler = $this->commands->handler($command);
        $handler->apply($command, $context);
        if (null !== $afterwards) {
            $afterwards($context->attempt);
        }
        $context->attempt->save();
        ($this->refresh)($entry);
        if ($handler instanceof HasFollowUp) {
            $handler->followUp($context->attempt, $entry);
        }
        if (AttemptState::Finished === $context->attempt->state && $entry->defects_count > 0) {
            ($this->settle)($context->attempt, $context->actor);
        }
    }
}
