<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Data\DefectCommentLine;
use LucidStep\App\Areas\Defects\Data\DefectFileLine;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Data\TakenOut;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Defects\Talk;

/**
 * What was said of a defect, by one query of rows.
 */
final class DefectTalk
{
    /**
     * @param  array<string, list<DefectFileLine>>  $files by comment
     *
     * @return list<DefectCommentLine> the first first
     */
    public static function with(string $defect, array $files): array
    {
        return self::lines([$defect], $files)[$defect] ?? [];
    }

    /**
     * @param  list<string>  $defects ids
     *
     * @return array<string, list<DefectCommentLine>> by defect; none where nothing was said
     */
    public static function ofMany(array $defects): array
    {
        return self::lines($defects, DefectFiles::of($defects));
    }

    /**
     * @param  list<string>  $defects ids
     * @param  array<string, list<DefectFileLine>>  $files by comment
     *
     * @return array<string, list<DefectCommentLine>>
     */
    private static function lines(array $defects, array $files): array
    {
        $rows = DB::table('defect_comments as c')
            ->join('users as a', 'a.id', '=', 'c.author_id')
            ->leftJoin('users as r', 'r.id', '=', 'c.removed_by_id')
            ->whereIn('c.defect_id', $defects)
            ->orderBy('c.created_at')
            ->orderBy('c.id')
            ->get(['c.*', 'a.name as author', 'r.name as remover']);
        $talk = [];
        foreach ($rows as $row) {
            $talk[(string) $row->defect_id][] = self::line($row, $files[(string) $row->id] ?? []);
        }

        return $talk;
    }

    /**
     * @param  list<DefectFileLine>  $files
     */
    private static function line(\stdClass $c, array $files): DefectCommentLine
    {
        $removed = UtcTime::time($c->removed_at);
        $by = null === $c->removed_by_id ? null : new Person($c->removed_by_id, $c->remover);

        return new DefectCommentLine(
            $c->id,
            new Person($c->author_id, $c->author),
            null === $removed ? $c->text : '',
            UtcTime::time($c->created_at) ?? '',
            UtcTime::time($c->edited_at),
            UtcTime::time(Talk::standsAt(new \DateTimeImmutable($c->created_at))->format('c')) ?? '',
            null === $removed ? null : new TakenOut($by, $removed, $c->removed_reason),
            $files,
        );
    }
}
