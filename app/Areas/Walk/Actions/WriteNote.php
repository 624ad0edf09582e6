<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\StepResult;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\Journal;
use LucidStep\App\Support\Secrets\MaskSecrets;

/**
 * Writes the note of a step, or of the whole attempt; an empty one removes it.
 */
final readonly class WriteNote
{
    public function __construct(private RecordInAttempt $act, private Journal $journal)
    {
    }

    /**
     * @param  array{round?: ?int, step?: ?int, note: ?string}  $fields without a step: of the attempt
     *
     * @return ?LateCommand the act, when it arrived too late
     */
    public function __invoke(Attempt $attempt, User $user, array $fields, DeviceStamp $stamp): ?LateCommand
    {
        $fields = [...$fields, ...MaskSecrets::hide($attempt, ['note' => $fields['note']])];

        return ($this->act)($attempt, $user, 'note_written', $fields, $stamp, function (Attempt $attempt) use ($user, $fields, $stamp): void {
            if (!isset($fields['step'], $fields['round'])) {
                $from = $attempt->remark;
                $attempt->remark = trim((string) $fields['note']);
                $this->journal->append($attempt, $user, 'note_written', ['from' => $from, 'to' => $attempt->remark], $stamp);

                return;
            }
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
