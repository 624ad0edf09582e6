<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Record;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\Signed;

/**
 * Writes what happened in an attempt or a session into its table of events, linked to the one before.
 */
final readonly class EventWriter
{
    public function __construct(private RecordSigner $signer) {}

    /**
     * Its sequence and its head move on, for the caller to save.
     *
     * @param  Attempt|TestSession  $of locked by the transaction
     * @param  array<string, mixed>  $payload
     * @param  list<string>  $evidence SHA-256 of the files it is about
     */
    public function write(Attempt|TestSession $of, User $actor, string $kind, array $payload, DeviceStamp $stamp, array $evidence): void
    {
        [$about, $table] = $of instanceof Attempt ? ['attempt', 'events'] : ['session', 'session_events'];
        $now = Carbon::now();
        $off = $stamp->clockOff($now);
        $event = (new Event(
            $of->id,
            $of->sequence + 1,
            $kind,
            $actor->id,
            null === $stamp->time ? null : self::microseconds($stamp->time),
            self::microseconds($now),
            $stamp->counter,
            [...$payload, ...null === $off ? [] : ['clock_off_ms' => $off]],
            $evidence,
            $about,
        ))->salted();
        $columns = EventRow::columns($event, $of->head);
        $of->head = $columns['hash'];
        $of->sequence = $event->sequence;
        DB::table($table)->insert([
            "{$about}_id" => $of->id,
            'sequence' => $event->sequence,
            'kind' => $kind,
            'actor_id' => $actor->id,
            'device_time' => $event->deviceTime,
            'server_time' => $event->serverTime,
            'counter' => $event->counter,
            'evidence' => CanonicalJson::encode($evidence),
            ...$columns,
        ]);
    }

    /**
     * Seals it where it stands, for the caller to save.
     */
    public function seal(Attempt|TestSession $of): void
    {
        $of->sealed_sequence = $of->sequence;
        $of->sealed_head = $of->head;
        $of->seal_signature = $this->signer->sign(Signed::seal($of->id, $of->sequence, $of->head));
    }

    private static function microseconds(Carbon $time): int
    {
        return $time->getTimestamp() * 1_000_000 + $time->microsecond;
    }
}
