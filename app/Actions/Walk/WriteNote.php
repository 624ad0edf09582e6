<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Walk;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\LateAct;
use LucidStep\App\Models\StepResult;
use LucidStep\App\Models\User;

/**
 * Writes the note of a step; an empty one removes it.
 */
final readonly class WriteNote
{
    public function __construct(private Act $act, private Journal $journal)
    {
    }

    /**
     * @param  array{round: int, step: int, note: ?string}  $fields
     *
     * @return ?LateAct the act, when it arrived too late
     */
    public function __invoke(Attempt $attempt, User $user, array $fields, DeviceStamp $stamp): ?LateAct
    {
        $fields = [...$fields, ...Secrets::hide($attempt, ['note' => $fields['note']])];

        return ($this->act)($attempt, $user, 'note_written', $fields, $stamp, function (Attempt $attempt) use ($user, $fields, $stamp): void {
            $result = StepResult::query()->where('position', $fields['step'])
                ->whereIn('round_id', $attempt->rounds()->where('position', $fields['round'])->select('id'))->first()
                ?? throw ValidationException::withMessages(['step' => 'There is no such step in this attempt.']);
            $note = trim((string) $fields['note']);
            $from = $result->note;
            $result->note = $note;
            $result->save();
            $this->journal->append($attempt, $user, 'note_written', ['round' => $fields['round'], 'step' => $fields['step'], 'from' => $from, 'to' => $note], $stamp);
        });
    }
}
