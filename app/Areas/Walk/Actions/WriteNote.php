<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\CommandHandler;
use LucidStep\App\Areas\Walk\Commands\NoteCommand;
use LucidStep\App\Models\StepResult;
use LucidStep\App\Support\Record\Journal;

/**
 * Writes the note of a step, or of the whole attempt; an empty one removes it.
 *
 * @implements CommandHandler<NoteCommand>
 */
final readonly class WriteNote implements CommandHandler
{
    public function __construct(private Journal $journal) {}

    public function apply(AttemptCommand $command, CommandContext $context): void
    {
        $attempt = $context->attempt;
        if (null === $command->step || null === $command->round) {
            $change = ['from' => $attempt->remark, 'to' => $command->note];
            $attempt->remark = $command->note;
            $this->journal->append($attempt, $context->actor, 'note_written', $change, $context->stamp);

            return;
        }
        $result =
            StepResult::query()
                ->where('position', $command->step)
                ->whereIn('round_id', $attempt->rounds()->where('position', $command->round)->select('id'))
                ->first() ?? throw ValidationException::withMessages(['step' => 'There is no such step in this attempt.']);
        $change = ['round' => $command->round, 'step' => $command->step, 'from' => $result->note, 'to' => $command->note];
        $result->note = $command->note;
        $result->save();
        $this->journal->append($attempt, $context->actor, 'note_written', $change, $context->stamp);
    }
}
