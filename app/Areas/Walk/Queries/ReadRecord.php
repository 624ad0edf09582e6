<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Walk\Data\AttemptRecord;
use LucidStep\App\Areas\Walk\Data\RecordEvent;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Record\EventRow;
use LucidStep\Core\Record\FreeText;

/**
 * Reads every event of an attempt.
 */
final class ReadRecord
{
    public function __invoke(Attempt $attempt): AttemptRecord
    {
        $attempt->load('entry.cycle');
        $time = static fn(?int $us): ?string => null === $us
            ? null
            : \sprintf('%s.%03dZ', gmdate('Y-m-d\TH:i:s', intdiv($us, 1_000_000)), intdiv($us % 1_000_000, 1000));
        $events = DB::table('events')
            ->leftJoin('users', 'users.id', '=', 'actor_id')
            ->where('attempt_id', $attempt->id)
            ->orderBy('sequence')
            ->get([
                'sequence',
                'kind',
                'actor_id',
                'users.name',
                'device_time',
                'server_time',
                'payload',
                'salts',
                'evidence',
                'hash',
                'bytes',
            ])
            ->map(
                static fn(object $e): RecordEvent => new RecordEvent(
                    $e->sequence,
                    $e->kind,
                    new Person($e->actor_id, $e->name),
                    $time($e->device_time),
                    (string) $time($e->server_time),
                    json_decode($e->payload, false, 512, \JSON_THROW_ON_ERROR),
                    json_decode($e->evidence, true, 16, \JSON_THROW_ON_ERROR),
                    $e->hash,
                    self::isRemoved($e),
                    [] !== EventRow::salts($e),
                ),
            );

        return new AttemptRecord(
            $attempt->id,
            array_values($events->all()),
            $attempt->head,
            null !== $attempt->sealed_head,
            $attempt->entry->cycle->log_head,
            $attempt->entry->cycle->log_sequence,
        );
    }

    /**
     * Whether a text of an event was taken out: its digest stands in the bytes, its salt is not there.
     */
    private static function isRemoved(\stdClass $event): bool
    {
        $said = FreeText::digests(json_decode($event->bytes, true, 512, \JSON_THROW_ON_ERROR)['payload']);

        return [] !== array_diff_key($said, EventRow::salts($event));
    }
}
