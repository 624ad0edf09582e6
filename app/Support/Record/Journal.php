<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Record;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\StoredEvent;

/**
 * Writes the events of an attempt, each linked to the one before, and checks them.
 */
final readonly class Journal
{
    /** What the chain of the cycle is told, so that an attempt cannot be made to vanish, and by which name. */
    public const CHAINED = [
        'started' => 'attempt_started',
        'taken_over' => 'attempt_taken_over',
        'abandoned' => 'attempt_abandoned',
        'finished' => 'attempt_finished',
        'late_act_accepted' => 'late_act_accepted',
        'retest_asked' => 'retest_asked',
        'time_corrected' => 'time_corrected',
        'evidence_redacted' => 'evidence_redacted',
    ];

    public function __construct(private CycleChain $chain, private EventWriter $writer) {}

    /**
     * Appends an event, and tells the chain of the cycle of what begins, ends or corrects an attempt. The attempt must be
     * locked by the transaction, for those its cycle before it ({@see CycleChain::hold}); its sequence, its head and, where
     * the event ends it, its seal move on and are left for the caller to save.
     *
     * @param  array<string, mixed>  $payload
     * @param  list<string>  $evidence SHA-256 of the files it is about
     */
    public function append(Attempt $attempt, User $actor, string $kind, array $payload, DeviceStamp $stamp, array $evidence = []): void
    {
        $said = [...$payload, ...$attempt->arrivedLate ? ['arrived_late' => true] : []];
        $this->writer->write($attempt, $actor, $kind, $said, $stamp, $evidence);
        if (null === $attempt->sealed_sequence && \in_array($kind, Chain::ENDS, true)) {
            $this->writer->seal($attempt);
        }
        if (isset(self::CHAINED[$kind])) {
            $this->chain->ofAttempt($attempt, $actor, self::CHAINED[$kind], array_intersect_key($payload, ['verdict' => 0, 'to_ms' => 0]));
        }
    }

    /**
     * @return list<StoredEvent> what is stored of an attempt, in order of sequence
     */
    public function events(Attempt $attempt): array
    {
        return array_values(
            DB::table('events')->where('attempt_id', $attempt->id)->orderBy('sequence')->get()->map(EventRow::stored(...))->all(),
        );
    }
}
