<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Record;

use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\FreeText;
use LucidStep\Core\Record\StoredEvent;

/**
 * An event as a row of its table, of an attempt's or a cycle's: one way in and one way out.
 */
final class EventRow
{
    /**
     * @param  string  $previous the hash before it
     * @param  array<string, string>  $removed digests of texts that are not there any more, by path
     *
     * @return array{payload: string, salts: string, bytes: string, hash: string} the columns that follow from the event
     */
    public static function columns(Event $event, string $previous, array $removed = []): array
    {
        $bytes = $event->bytes($removed);

        return [
            'payload' => CanonicalJson::encode([] === $event->payload ? new \stdClass() : $event->payload),
            'salts' => json_encode((object) array_diff_key($event->salts, $removed), \JSON_THROW_ON_ERROR),
            'bytes' => $bytes,
            'hash' => Chain::next($previous, $bytes),
        ];
    }

    /**
     * @param  \stdClass  $row of `events`, of `cycle_events` or of `session_events`
     */
    public static function stored(\stdClass $row): StoredEvent
    {
        [$about, $of] = match (true) {
            isset($row->cycle_id) => ['cycle', $row->cycle_id],
            isset($row->session_id) => ['session', $row->session_id],
            default => ['attempt', $row->attempt_id],
        };

        return new StoredEvent(
            new Event(
                $of,
                $row->sequence,
                $row->kind,
                $row->actor_id,
                $row->device_time ?? null,
                $row->server_time,
                $row->counter ?? null,
                self::payload($row->payload),
                json_decode($row->evidence ?? '[]', true, 16, \JSON_THROW_ON_ERROR),
                $about,
                self::salts($row),
            ),
            $row->bytes,
            $row->hash,
        );
    }

    /**
     * Empty objects and empty lists stay apart.
     *
     * @return array<string, mixed>
     */
    public static function payload(string $json): array
    {
        return get_object_vars(json_decode($json, false, 512, \JSON_THROW_ON_ERROR));
    }

    /**
     * @param  \stdClass  $row with salts
     *
     * @return array<string, string> by path
     */
    public static function salts(\stdClass $row): array
    {
        return json_decode($row->salts, true, 16, \JSON_THROW_ON_ERROR);
    }

    /**
     * The columns that change when texts are taken out: they go with their salts.
     *
     * @param  \stdClass  $row with payload and salts
     * @param  array<string, string>  $texts by path
     *
     * @return array{payload: string, salts: string}
     */
    public static function without(\stdClass $row, array $texts): array
    {
        return [
            'payload' => json_encode(
                FreeText::replaced(self::payload($row->payload), $texts),
                \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE,
            ),
            'salts' => json_encode((object) array_diff_key(self::salts($row), $texts), \JSON_THROW_ON_ERROR),
        ];
    }
}
