<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\CommandHandler;
use LucidStep\App\Areas\Walk\Commands\RetryCommand;
use LucidStep\App\Models\StepResult;
use LucidStep\App\Support\Record\Journal;

/**
 * Counts a try of a step that comes and goes, without judging it: "fails 2 of 5".
 *
 * @implements CommandHandler<RetryCommand>
 */
final readonly class RecordRetry implements CommandHandler
{
    public function __construct(private Journal $journal) {}

    public function apply(AttemptCommand $command, CommandContext $context): void
    {
        $attempt = $context->attempt;
        $result =
            StepResult::query()
                ->where('position', $command->step)
                ->whereIn('round_id', $attempt->rounds()->where('position', $command->round)->select('id'))
                ->first() ?? throw ValidationException::withMessages(['step' => 'There is no such step in this attempt.']);
        $result->tries++;
        $result->tries_failed += $command->failed ? 1 : 0;
        $result->save();
        $this->journal->append(
            $attempt,
            $context->actor,
            'tried',
            [
                'round' => $command->round,
                'step' => $command->step,
                'failed' => $command->failed,
                'tries' => $result->tries,
                'tries_failed' => $result->tries_failed,
            ],
            $context->stamp,
        );
    }
}
