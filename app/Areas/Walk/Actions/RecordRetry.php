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

/**
 * Counts a try of a step that comes and goes, without judging it: "fails 2 of 5".
 */
final readonly class RecordRetry
{
    public function __construct(private RecordInAttempt $act, private Journal $journal)
    {
    }

    /**
     * @param  array{round: int, step: int, failed: bool}  $fields
     *
     * @return ?LateCommand the act, when it arrived too late
     */
    public function __invoke(Attempt $attempt, User $user, array $fields, DeviceStamp $stamp): ?LateCommand
    {
        return ($this->act)($attempt, $user, 'tried', $fields, $stamp, function (Attempt $attempt) use ($user, $fields, $stamp): void {
            $result = StepResult::query()->where('position', $fields['step'])
                ->whereIn('round_id', $attempt->rounds()->where('position', $fields['round'])->select('id'))->first()
                ?? throw ValidationException::withMessages(['step' => 'There is no such step in this attempt.']);
            $result->tries++;
            $result->tries_failed += $fields['failed'] ? 1 : 0;
            $result->save();
            $this->journal->append($attempt, $user, 'tried', ['round' => $fields['round'], 'step' => $fields['step'], 'failed' => $fields['failed'], 'tries' => $result->tries, 'tries_failed' => $result->tries_failed], $stamp);
        });
    }
}
