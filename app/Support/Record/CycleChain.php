<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Record;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\User;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\Removed;
use LucidStep\Core\Record\Seal;
use LucidStep\Core\Record\Signed;
use LucidStep\Core\Record\StoredEvent;
use LucidStep\Core\Record\Verification;

/**
 * A cycle's own chain of events: every end of an attempt, and what was done to it afterwards. Its head stands outside, in
 * reports, bundles and mails, so that a record rewritten as a whole shows.
 */
final readonly class CycleChain
{
    public function __construct(private RecordSigner $signer) {}

    /**
     * Appends an event, locking the cycle's row until the transaction ends.
     *
     * @param  ?User  $actor null: the application itself
     * @param  array<string, mixed>  $payload
     */
    public function append(string $cycle, ?User $actor, string $kind, array $payload): void
    {
        $this->link(DB::table('cycles')->where('id', $cycle), $actor, $kind, $payload);
    }

    /**
     * @param  Builder  $cycle its row
     * @param  array<string, mixed>  $payload
     */
    private function link(Builder $cycle, ?User $actor, string $kind, array $payload): void
    {
        $row = $cycle->lockForUpdate()->sole(['id', 'log_sequence', 'log_head']);
        $now = Carbon::now();
        $event = (new Event(
            $row->id,
            $row->log_sequence + 1,
            $kind,
            $actor?->id,
            null,
            $now->getTimestamp() * 1_000_000 + $now->microsecond,
            null,
            $payload,
            [],
            'cycle',
        ))->salted();
        $columns = EventRow::columns($event, '' === $row->log_head ? Chain::start($row->id) : $row->log_head);
        DB::table('cycle_events')->insert([
            'cycle_id' => $row->id,
            'sequence' => $event->sequence,
            'kind' => $kind,
            'actor_id' => $actor?->id,
            'server_time' => $event->serverTime,
            ...$columns,
        ]);
        DB::table('cycles')
            ->where('id', $row->id)
            ->update([
                'log_sequence' => $event->sequence,
                'log_head' => $columns['hash'],
                'log_signature' => $this->signer->sign(Signed::head($row->id, $event->sequence, $columns['hash'])),
            ]);
    }

    /**
     * Locks the cycle of an entry before the entry itself, in the order in which plans are changed.
     */
    public function hold(string $entry): void
    {
        self::of($entry)
            ->lockForUpdate()
            ->get(['id']);
    }

    private static function of(string $entry): Builder
    {
        return DB::table('cycles')->whereIn('id', DB::table('entries')->where('id', $entry)->select('cycle_id'));
    }

    /**
     * Appends what was done to an attempt, with how many events it has and the hash of the last.
     *
     * @param  array<string, mixed>  $payload
     */
    public function ofAttempt(Attempt $attempt, ?User $actor, string $kind, array $payload): void
    {
        $this->link(self::of($attempt->entry_id), $actor, $kind, [
            'attempt' => $attempt->id,
            'events' => $attempt->sequence,
            'head' => $attempt->head,
            ...$payload,
        ]);
    }

    /**
     * Takes texts out of the chain and says so in it: their digests stay, so that all of it stays proven.
     *
     * @param  list<string>  $texts
     */
    public function takeOut(Cycle $cycle, array $texts, User $by, string $reason): void
    {
        TakeOut::ofChain('cycle', $cycle->id, $cycle->project_id, $texts, $by, $reason, function (array $said) use ($cycle, $by): void {
            $this->append($cycle->id, $by, 'text_removed', $said);
        });
    }

    /**
     * @return list<StoredEvent> what is stored of a cycle's chain, in order of sequence
     */
    public function events(string $cycle): array
    {
        return array_values(
            DB::table('cycle_events')->where('cycle_id', $cycle)->orderBy('sequence')->get()->map(EventRow::stored(...))->all(),
        );
    }

    /**
     * @param  ?list<StoredEvent>  $events of the cycle, where they were read already
     */
    public function verify(Cycle $cycle, ?array $events = null): Verification
    {
        $events ??= $this->events($cycle->id);
        $found = Chain::verify(
            $cycle->id,
            $events,
            new Seal($cycle->log_sequence, '' === $cycle->log_head ? Chain::start($cycle->id) : $cycle->log_head),
            Removed::ofCycle($cycle->id, $events),
        );
        $fault =
            'broken' === $found->state || 0 === $cycle->log_sequence
                ? null
                : $this->signer->fault(Signed::head($cycle->id, $cycle->log_sequence, $cycle->log_head), $cycle->log_signature);

        return null === $fault ? $found : Verification::broken($cycle->log_sequence, "its head: {$fault}", $cycle->log_sequence);
    }
}
