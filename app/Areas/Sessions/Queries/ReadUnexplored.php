<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Sessions\Data\FigureRow;
use LucidStep\App\Areas\Sessions\Data\Unexplored;
use LucidStep\App\Models\Project;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Sessions\ExplorationGap;

/**
 * Reads what nobody explored on the newest build: folders with cases, and labels that are not called like one.
 */
final readonly class ReadUnexplored
{
    /** So many areas are proposed. */
    private const PROPOSED = 20;

    /** What the areas of a case are called, by their kind. */
    private const AREAS = [
        'folder' => ['c.folder_id::text', ''],
        'label' => ['l.name', 'cross join lateral jsonb_array_elements_text(c.labels) as l (name)'],
    ];

    public function __construct(private ReadFigures $figures) {}

    /**
     * @return list<Unexplored> the most urgent first
     */
    public function __invoke(Project $project): array
    {
        $found = $folders = [];
        foreach (array_keys(self::AREAS) as $kind) {
            $figures = ($this->figures)($project, $kind);
            if (null === $figures->newest_build) {
                return [];
            }
            $inside = $this->inside($project, $kind, $figures->newest_build->id);
            foreach ($figures->rows as $row) {
                $name = mb_strtolower($row->name);
                // Where there is nothing, there is nothing to explore.
                if ($row->is_behind && isset($inside[$row->id]) && ('folder' === $kind || !isset($folders[$name]))) {
                    $found[] = self::area($kind, $row, ...$inside[$row->id]);
                }
                $folders += 'folder' === $kind ? [$name => true] : [];
            }
        }
        usort($found, static fn(array $a, array $b): int => $a[0]->compare($b[0]));

        return array_column(\array_slice($found, 0, self::PROPOSED), 1);
    }

    /**
     * @return array{ExplorationGap, Unexplored}
     */
    private static function area(string $kind, FigureRow $row, int $cases, int $walked, int $openDefects): array
    {
        return [
            new ExplorationGap($row->builds_since, $openDefects, $cases - $walked),
            new Unexplored(
                $kind,
                $row->id,
                $row->name,
                $row->newest_build,
                $row->builds_since,
                $row->days_since,
                $cases,
                $walked,
                $openDefects,
            ),
        ];
    }

    /**
     * @param  key-of<self::AREAS>  $kind
     * @param  string  $build the newest
     *
     * @return array<string, array{int, int, int}> by area its cases, those walked on the build, and open defects
     */
    private function inside(Project $project, string $kind, string $build): array
    {
        [$of, $join] = self::AREAS[$kind];
        $closed = implode(', ', array_map(static fn(DefectState $s): string => "'{$s->value}'", DefectState::closed()));
        $rows = DB::select(
            <<<SQL
            with walked as (
                select distinct e.case_id from attempts a join entries e on e.id = a.entry_id
                where a.build_id = ? and a.finished_at is not null
            ), open as (
                select case_id, count(*) as n from defects where project_id = ? and state not in ({$closed}) group by case_id
            )
            select {$of} as area, count(*) as cases, count(w.case_id) as walked, coalesce(sum(o.n), 0) as defects
            from cases c {$join} left join walked w on w.case_id = c.id left join open o on o.case_id = c.id
            where c.project_id = ? and c.binned_at is null and {$of} is not null group by 1
            SQL
            ,
            [$build, $project->id, $project->id],
        );
        $inside = [];
        foreach ($rows as $row) {
            $inside[(string) $row->area] = [(int) $row->cases, (int) $row->walked, (int) $row->defects];
        }

        return $inside;
    }
}
