<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Data\DefectLine;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Defects\OpenTime;

/**
 * Defects as lines of a list, by one query of rows: models of a hundred of them take the most of a list's time.
 */
final class DefectLines
{
    /**
     * @param  list<string>  $ids
     *
     * @return list<DefectLine> in the order of the ids
     */
    public static function of(array $ids): array
    {
        if ([] === $ids) {
            return [];
        }
        $rows = DB::table('defects as d')
            ->join('users as r', 'r.id', '=', 'd.reporter_id')
            ->leftJoin('users as a', 'a.id', '=', 'd.assignee_id')
            ->leftJoin('cases as c', 'c.id', '=', 'd.case_id')
            ->leftJoin('builds as b', 'b.id', '=', 'd.build_id')
            ->leftJoin('configurations as f', 'f.id', '=', 'd.configuration_id')
            ->whereIn('d.id', $ids)
            ->get([
                ...['d.id', 'd.key', 'd.title', 'd.state', 'd.severity', 'd.priority', 'd.created_at', 'd.updated_at'],
                ...['d.reporter_id', 'r.name as reporter', 'd.assignee_id', 'a.name as assignee'],
                ...['c.key as case_key', 'd.build_id', 'b.name as build', 'd.configuration_id', 'f.name as configuration'],
                ...['d.component', 'd.labels', 'd.custom', 'd.open_ms', 'd.open_since'],
            ])
            ->keyBy('id');
        $lines = [];
        $now = Carbon::now()->getTimestampMs();
        foreach ($ids as $id) {
            $row = $rows->get($id);
            if (null !== $row) {
                $lines[] = self::line($row, $now);
            }
        }

        return $lines;
    }

    private static function line(\stdClass $d, int $now): DefectLine
    {
        return new DefectLine(
            $d->id,
            $d->key,
            $d->title,
            $d->state,
            DefectState::from($d->state)->isClosed(),
            $d->severity,
            $d->priority,
            new Person($d->reporter_id, $d->reporter),
            null === $d->assignee_id ? null : new Person($d->assignee_id, $d->assignee),
            $d->case_key,
            null === $d->build_id ? null : new Named($d->build_id, $d->build),
            null === $d->configuration_id ? null : new Named($d->configuration_id, $d->configuration),
            $d->component,
            json_decode($d->labels, true, 4, \JSON_THROW_ON_ERROR),
            (object) json_decode($d->custom, true, 4, \JSON_THROW_ON_ERROR),
            (new OpenTime($d->open_ms, null === $d->open_since ? null : (int) (new \DateTimeImmutable($d->open_since))->format('Uv')))->at(
                $now,
            ),
            UtcTime::time($d->created_at) ?? '',
            UtcTime::time($d->updated_at) ?? '',
        );
    }
}
