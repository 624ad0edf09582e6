<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Data\DefectFileLine;
use LucidStep\App\Models\DefectFile;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Data\TakenOut;
use LucidStep\App\Support\Time\UtcTime;

/**
 * The files that stand with defects and with what was said of them, by one query of rows.
 */
final class DefectFiles
{
    /** Where those of the defect itself stand. */
    public const OWN = '';

    /**
     * @param  list<string>  $defects ids
     *
     * @return array<string, list<DefectFileLine>> by comment, or {@see OWN}; the first first
     */
    public static function of(array $defects): array
    {
        $rows = DB::table('defect_files as d')
            ->leftJoin('files as f', 'f.sha256', '=', 'd.sha256')
            ->leftJoin('users as r', 'r.id', '=', 'd.removed_by_id')
            ->leftJoin('defect_comments as c', 'c.id', '=', 'd.comment_id')
            ->whereIn('d.defect_id', $defects)
            // What goes with words stands with them once they are said, and only what their author added.
            ->where(static fn(Builder $q) => $q->whereNull('d.comment_id')->orWhereColumn('c.author_id', 'd.added_by_id'))
            ->orderBy('d.created_at')
            ->orderBy('d.id')
            ->get(['d.*', 'f.bytes', 'f.media_type', 'f.width', 'f.height', 'r.name as remover']);
        $files = [];
        foreach ($rows as $row) {
            $files[$row->comment_id ?? self::OWN][] = self::line($row);
        }

        return $files;
    }

    public static function one(DefectFile $file): DefectFileLine
    {
        $stored = $file->file;

        return self::line(
            (object) [
                ...$file->getAttributes(),
                'bytes' => $stored?->bytes,
                'media_type' => $stored?->media_type,
                'width' => $stored?->width,
                'height' => $stored?->height,
                'remover' => null,
            ],
        );
    }

    private static function line(\stdClass $d): DefectFileLine
    {
        $removed = UtcTime::time($d->removed_at);
        $url = "/api/v1/defect-files/{$d->id}";
        $isPicture = null !== $d->sha256 && (new StoredFile(['media_type' => $d->media_type]))->isPicture();

        return new DefectFileLine(
            $d->id,
            $d->name,
            (string) $d->media_type,
            (int) $d->bytes,
            $d->width,
            $d->height,
            null === $d->sha256 ? '' : "{$url}/file",
            $isPicture ? "{$url}/thumbnail" : null,
            $d->added_by_id,
            null === $removed
                ? null
                : new TakenOut(
                    null === $d->removed_by_id ? null : new Person($d->removed_by_id, (string) $d->remover),
                    $removed,
                    $d->removed_reason,
                ),
        );
    }
}
