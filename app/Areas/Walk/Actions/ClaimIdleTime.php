<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\Journal;

/**
 * Keeps what the tester said of a time without a sign of them: how much of it was work.
 */
final readonly class ClaimIdleTime
{
    public function __construct(private RecordInAttempt $act, private Journal $journal)
    {
    }

    /**
     * @param  array{away_ms: int, counted_ms: int}  $fields
     *
     * @return ?LateCommand the act, when it arrived too late
     */
    public function __invoke(Attempt $attempt, User $user, array $fields, DeviceStamp $stamp): ?LateCommand
    {
        return ($this->act)($attempt, $user, 'away_decided', $fields, $stamp, function (Attempt $attempt) use ($user, $fields, $stamp): void {
            $counted = min($fields['counted_ms'], $fields['away_ms']);
            $attempt->active_ms += $counted;
            $this->journal->append($attempt, $user, 'away_decided', ['away_ms' => $fields['away_ms'], 'counted_ms' => $counted], $stamp);
        });
    }
}
