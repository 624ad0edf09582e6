<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Walk;

use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\LateAct;
use LucidStep\App\Models\User;

/**
 * Keeps what the tester said of a time without a sign of them: how much of it was work.
 */
final readonly class DecideAway
{
    public function __construct(private Act $act, private Journal $journal)
    {
    }

    /**
     * @param  array{away_ms: int, counted_ms: int}  $fields
     *
     * @return ?LateAct the act, when it arrived too late
     */
    public function __invoke(Attempt $attempt, User $user, array $fields, DeviceStamp $stamp): ?LateAct
    {
        return ($this->act)($attempt, $user, 'away_decided', $fields, $stamp, function (Attempt $attempt) use ($user, $fields, $stamp): void {
            $counted = min($fields['counted_ms'], $fields['away_ms']);
            $attempt->active_ms += $counted;
            $this->journal->append($attempt, $user, 'away_decided', ['away_ms' => $fields['away_ms'], 'counted_ms' => $counted], $stamp);
        });
    }
}
