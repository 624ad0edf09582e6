<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Exchange;

use LucidStep\App\Areas\Coverage\Data\Trace;
use LucidStep\App\Areas\Coverage\Data\TraceLink;
use LucidStep\App\Areas\Coverage\Data\TraceRow;
use LucidStep\App\Areas\Coverage\Data\TraceSession;
use LucidStep\Core\Exchange\CsvWriter;

/**
 * Writes a trace as a sheet: each row is one way, with everything in it by key and title.
 */
final class WriteTrace
{
    private const HEADER = [
        'Requirement',
        'What must hold',
        'Case',
        'Title',
        'Cycle or session',
        'Configuration',
        'Shows',
        'Attempt',
        'Build',
        'Verdict',
        'Finished',
        'Round',
        'Step',
        'Step verdict',
        'Defects',
        'Evidence',
    ];

    /**
     * @param  iterable<Trace>  $parts of the same trace, one after the other
     */
    public static function csv(iterable $parts): string
    {
        return CsvWriter::text(self::rows($parts));
    }

    /**
     * @param  iterable<Trace>  $parts
     *
     * @return \Generator<int, list<string>>
     */
    private static function rows(iterable $parts): \Generator
    {
        yield self::HEADER;
        $sessions = [];
        foreach ($parts as $part) {
            foreach ($part->rows as $row) {
                yield self::walked($row);
            }
            foreach ($part->sessions as $session) {
                $sessions[$session->charter->id] = $session;
            }
        }
        foreach ($sessions as $session) {
            yield self::explored($session);
        }
    }

    /**
     * @return list<string>
     */
    private static function walked(TraceRow $r): array
    {
        return [
            ...self::pair($r->requirement),
            ...self::pair($r->case),
            (string) $r->entry?->key,
            (string) $r->entry?->title,
            (string) $r->entry?->state,
            (string) $r->attempt?->key,
            (string) $r->attempt?->title,
            (string) $r->attempt?->state,
            (string) $r->finished_at,
            (string) $r->round,
            (string) $r->step,
            (string) $r->step_verdict,
            self::named($r->defects),
            implode("\n", array_column($r->evidence, 'title')),
        ];
    }

    /**
     * @return list<string>
     */
    private static function explored(TraceSession $s): array
    {
        $session = "{$s->charter->key} {$s->charter->title}";

        return [
            ...self::pair($s->requirement),
            self::named($s->cases),
            '',
            $session,
            '',
            (string) $s->charter->state,
            ...['', '', '', $s->started_at, '', '', ''],
            self::named($s->defects),
            '',
        ];
    }

    /**
     * @param  list<TraceLink>  $all
     */
    private static function named(array $all): string
    {
        $words = static fn(TraceLink $l): string => "{$l->key} {$l->title}" . (null === $l->state ? '' : " ({$l->state})");

        return implode("\n", array_map($words, $all));
    }

    /**
     * @return array{string, string}
     */
    private static function pair(?TraceLink $link): array
    {
        return [(string) $link?->key, (string) $link?->title];
    }
}
