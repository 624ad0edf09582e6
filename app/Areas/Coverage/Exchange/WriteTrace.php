<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Exchange;

use LucidStep\App\Areas\Coverage\Data\Trace;
use LucidStep\App\Areas\Coverage\Data\TraceLink;
use LucidStep\App\Areas\Coverage\Data\TraceRow;
use LucidStep\App\Areas\Coverage\Data\TraceSession;
use LucidStep\Core\Exchange\Cell;

/**
 * Writes a trace as a sheet: each row is one way, with everything in it by key and title.
 */
final class WriteTrace
{
    /** As many rows a file has. */
    public const ROWS = 100_000;

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

    public static function csv(Trace $trace): string
    {
        $out = fopen('php://temp', 'w+') ?: throw new \RuntimeException('No temporary stream.');
        // The mark tells spreadsheets that this is UTF-8.
        fwrite($out, "\xEF\xBB\xBF");
        foreach ([self::HEADER, ...self::rows($trace)] as $row) {
            fputcsv($out, array_map(Cell::harmless(...), $row), ',', '"', '', "\r\n");
        }
        rewind($out);

        return (string) stream_get_contents($out);
    }

    /**
     * @return list<list<string>>
     */
    private static function rows(Trace $trace): array
    {
        $named = static fn(array $all): string => implode(
            "\n",
            array_map(
                static fn(TraceLink $l): string => trim("{$l->key} {$l->title}" . (null === $l->state ? '' : " ({$l->state})")),
                $all,
            ),
        );
        $walked = array_map(
            static fn(TraceRow $r): array => [
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
                $named($r->defects),
                implode("\n", array_column($r->evidence, 'title')),
            ],
            $trace->rows,
        );
        $explored = array_map(
            static fn(TraceSession $s): array => [
                ...self::pair($s->requirement),
                $named($s->cases),
                '',
                "{$s->charter->key} {$s->charter->title}",
                '',
                (string) $s->charter->state,
                ...['', '', '', $s->started_at, '', '', ''],
                $named($s->defects),
                '',
            ],
            $trace->sessions,
        );

        return [...$walked, ...$explored];
    }

    /**
     * @return array{string, string}
     */
    private static function pair(?TraceLink $link): array
    {
        return [(string) $link?->key, (string) $link?->title];
    }
}
