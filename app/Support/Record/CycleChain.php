<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Record;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\Seal;
use LucidStep\Core\Record\StoredEvent;
use LucidStep\Core\Record\Verification;

/**
 * A cycle's own chain of events: every end of an attempt, and what was done to it afterwards. Its head stands outside, in
 * reports, bundles and mails, so that a record rewritten as a whole shows.
 */
final class CycleChain
{
    /**
     * Appends an event, locking the cycle's row until the transaction ends.
     *
     * @param  ?User  $actor null: the application itself
     * @param  array<string, mixed>  $payload
     */
    public function append(string $cycle, ?User $actor, string $kind, array $payload): void
    {
        $row =
            DB::table('cycles')
                ->where('id', $cycle)
                ->lockForUpdate()
                ->first(['log_sequence', 'log_head']) ?? throw new \LogicException("There is no cycle {$cycle}.");
        $now = Carbon::now();
        $event = new Event(
            $cycle,
            $row->log_sequence + 1,
            $kind,
            $actor?->id,
            null,
            $now->getTimestamp() * 1_000_000 + $now->microsecond,
            null,
            $payload,
            [],
            'cycle',
        );
        $bytes = $event->bytes();
        $hash = Chain::next('' === $row->log_head ? Chain::start($cycle) : $row->log_head, $bytes);
        DB::table('cycle_events')->insert([
            'cycle_id' => $cycle,
            'sequence' => $event->sequence,
            'kind' => $kind,
            'actor_id' => $actor?->id,
            'server_time' => $event->serverTime,
            'payload' => CanonicalJson::encode([] === $payload ? new \stdClass() : $payload),
            'bytes' => $bytes,
            'hash' => $hash,
        ]);
        DB::table('cycles')
            ->where('id', $cycle)
            ->update(['log_sequence' => $event->sequence, 'log_head' => $hash]);
    }

    /**
     * Locks the cycle of an entry before the entry itself, in the order in which plans are changed.
     */
    public function hold(string $entry): void
    {
        DB::table('cycles')
            ->whereIn('id', Entry::query()->whereKey($entry)->select('cycle_id'))
            ->lockForUpdate()
            ->get(['id']);
    }

    /**
     * @param  array<string, mixed>  $payload
     */
    public function ofAttempt(Attempt $attempt, ?User $actor, string $kind, array $payload): void
    {
        $this->append((string) Entry::query()->whereKey($attempt->entry_id)->value('cycle_id'), $actor, $kind, [
            'attempt' => $attempt->id,
            ...$payload,
        ]);
    }

    public function verify(Cycle $cycle): Verification
    {
        $events = array_values(
            DB::table('cycle_events')
                ->where('cycle_id', $cycle->id)
                ->orderBy('sequence')
                ->get()
                ->map(
                    static fn(object $row): StoredEvent => new StoredEvent(
                        new Event(
                            $row->cycle_id,
                            $row->sequence,
                            $row->kind,
                            $row->actor_id,
                            null,
                            $row->server_time,
                            null,
                            get_object_vars(json_decode($row->payload, false, 512, \JSON_THROW_ON_ERROR)),
                            [],
                            'cycle',
                        ),
                        $row->bytes,
                        $row->hash,
                    ),
                )
                ->all(),
        );

        return Chain::verify(
            $cycle->id,
            $events,
            [] === $events && '' === $cycle->log_head ? null : new Seal($cycle->log_sequence, $cycle->log_head),
        );
    }
}
