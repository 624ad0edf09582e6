<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use LucidStep\App\Areas\Cycles\Queries\Estimates;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\App\Support\Record\Journal;
use LucidStep\Core\Forecast\Duration;

/**
 * Corrects an attempt's measured time; the measured one is kept beside it. Also after the end.
 */
final readonly class CorrectTime
{
    public function __construct(private Journal $journal, private CycleChain $chain, private RefreshEntry $refresh) {}

    public function __invoke(Attempt $attempt, User $user, Duration $time, DeviceStamp $stamp): void
    {
        $this->chain->hold($attempt->entry_id);
        $entry = Entry::query()->lockForUpdate()->findOrFail($attempt->entry_id);
        $attempt = Attempt::query()->lockForUpdate()->findOrFail($attempt->id);
        $this->journal->append(
            $attempt,
            $user,
            'time_corrected',
            ['from_ms' => $attempt->corrected_ms ?? $attempt->active_ms, 'to_ms' => $time->milliseconds],
            $stamp,
        );
        $attempt->corrected_ms = $time->milliseconds;
        $attempt->time_seen_at = null;
        $attempt->save();
        ($this->refresh)($entry);
        Estimates::renew($entry->case_id);
    }
}
