<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Record;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\Seal;
use LucidStep\Core\Record\StoredEvent;
use LucidStep\Core\Record\Verification;

/**
 * Writes the events of an attempt, each linked to the one before, and checks them.
 */
final class Journal
{
    /**
     * Appends an event. The attempt must be locked by the transaction; its sequence and head move on and are
     * left for the caller to save.
     *
     * @param  array<string, mixed>  $payload
     * @param  list<string>  $evidence SHA-256 of the files it is about
     */
    public function append(Attempt $attempt, User $actor, string $kind, array $payload, DeviceStamp $stamp, array $evidence = []): void
    {
        $now = Carbon::now();
        $off = $stamp->clockOff($now);
        $event = new Event(
            $attempt->id,
            $attempt->sequence + 1,
            $kind,
            $actor->id,
            null === $stamp->time ? null : self::microseconds($stamp->time),
            self::microseconds($now),
            $stamp->counter,
            [...$payload, ...null === $off ? [] : ['clock_off_ms' => $off], ...$attempt->arrivedLate ? ['arrived_late' => true] : []],
            $evidence,
        );
        $bytes = $event->bytes();
        $attempt->head = Chain::next($attempt->head, $bytes);
        $attempt->sequence = $event->sequence;
        DB::table('events')->insert([
            'attempt_id' => $attempt->id,
            'sequence' => $event->sequence,
            'kind' => $kind,
            'actor_id' => $actor->id,
            'device_time' => $event->deviceTime,
            'server_time' => $event->serverTime,
            'counter' => $event->counter,
            'payload' => CanonicalJson::encode([] === $event->payload ? new \stdClass() : $event->payload),
            'evidence' => CanonicalJson::encode($evidence),
            'bytes' => $bytes,
            'hash' => $attempt->head,
        ]);
    }

    /**
     * Checks what is stored of an attempt: its events, its seal and its files.
     *
     * @param  array<string, ?string>  $files SHA-256 found for each evidence hash
     */
    public function verify(Attempt $attempt, array $files = []): Verification
    {
        $removed = DB::table('removals')
            ->where('attempt_id', $attempt->id)
            ->get(['kind', 'subject'])
            ->groupBy('kind')
            ->map(static fn($of): array => array_flip($of->pluck('subject')->all()));
        $texts = $removed['text'] ?? [];
        $events = DB::table('events')
            ->where('attempt_id', $attempt->id)
            ->orderBy('sequence')
            ->get()
            ->map(
                static fn(object $row): StoredEvent => new StoredEvent(
                    new Event(
                        $row->attempt_id,
                        $row->sequence,
                        $row->kind,
                        $row->actor_id,
                        $row->device_time,
                        $row->server_time,
                        $row->counter,
                        self::payload($row->payload),
                        json_decode($row->evidence, true, 512, \JSON_THROW_ON_ERROR),
                    ),
                    $row->bytes,
                    $row->hash,
                    '' === $row->bytes && isset($texts[(string) $row->sequence]),
                ),
            )
            ->all();
        $seal = null === $attempt->sealed_sequence ? null : new Seal($attempt->sealed_sequence, (string) $attempt->sealed_head);

        return Chain::verify($attempt->id, array_values($events), $seal, $files, $removed['file'] ?? []);
    }

    /**
     * Empty objects and empty lists stay apart.
     *
     * @return array<string, mixed>
     */
    private static function payload(string $json): array
    {
        return get_object_vars(json_decode($json, false, 512, \JSON_THROW_ON_ERROR));
    }

    private static function microseconds(Carbon $time): int
    {
        return $time->getTimestamp() * 1_000_000 + $time->microsecond;
    }
}
