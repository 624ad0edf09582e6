<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\Core\Defects\DefectState;

/**
 * The requirements of a project with the cases linked to them: as they are, or as they were at a moment of the past.
 */
final readonly class RequirementSource
{
    /** Whether a defect `d`, by its link `l`, was open at `:at`; `:closed` are the states that are not. */
    public const WAS_OPEN =
        'd.created_at < :at and l.created_at < :at and coalesce((select c.to_state from defect_changes c where c.defect_id = d.id and ' .
        'c.created_at < :at and c.to_state <> c.from_state order by c.created_at desc, c.id desc limit 1), (select c.from_state from ' .
        'defect_changes c where c.defect_id = d.id and c.created_at >= :at and c.to_state <> c.from_state ' .
        'order by c.created_at, c.id limit 1), d.state) <> all (cast(:closed as text[]))';

    /**
     * @param  ?string  $at a moment of the past; null: now
     */
    public function __construct(private string $project, private ?string $at) {}

    /**
     * @return list<object{id: string, key: string, title: string, parent_id: ?string, external_id: ?string}> each after the one above it
     */
    public function requirements(): array
    {
        /** @var list<object{id: string, key: string, title: string, parent_id: ?string, external_id: ?string}> $found */
        $found =
            null === $this->at
                ? DB::select(
                    'select id, key, title, parent_id, external_id from requirements where project_id = ? and dropped_at is null ' .
                        'order by position, number',
                    [$this->project],
                )
                : DB::select(
                    'select r.id, r.key, q.title, q.parent_id, r.external_id from requirement_places q ' .
                        'join requirements r on r.id = q.requirement_id where q.project_id = :project and ' .
                        CellSource::held('q') .
                        ' order by q.position, r.number',
                    ['project' => $this->project, 'at' => $this->at],
                );

        return self::inOrder($found);
    }

    /**
     * @return array{array<string, list<string>>, array<string, int>} cases of each requirement, and how many of them are to be looked at
     *                                                                (now; of the past nobody knows)
     */
    public function links(): array
    {
        $links = $late = [];
        foreach (null === $this->at ? $this->linksNow() : $this->linksThen($this->at) as $link) {
            $links[$link->requirement_id][] = $link->case_id;
            if ($link->late) {
                $late[$link->requirement_id] = ($late[$link->requirement_id] ?? 0) + 1;
            }
        }

        return [$links, $late];
    }

    /**
     * @return array<string, int> open defects of its own cases, by requirement
     */
    public function openDefects(): array
    {
        $closed = '{' . implode(',', array_map(static fn(DefectState $s): string => $s->value, DefectState::closed())) . '}';
        $found =
            null === $this->at
                ? DB::select(
                    'select r.requirement_id, count(distinct d.id) as n from defects d join defect_links l on l.defect_id = d.id ' .
                        'join entries e on e.id = l.entry_id join case_requirements r on r.case_id = e.case_id ' .
                        'where d.project_id = ? and d.state <> all (?::text[]) group by r.requirement_id',
                    [$this->project, $closed],
                )
                : DB::select(
                    'select r.requirement_id, count(distinct d.id) as n from defects d join defect_links l on l.defect_id = d.id ' .
                        'join entries e on e.id = l.entry_id join requirement_links r on r.case_id = e.case_id ' .
                        'where d.project_id = :project and ' .
                        self::WAS_OPEN .
                        ' and ' .
                        CellSource::held('r', 'linked_at', 'parted_at') .
                        ' group by r.requirement_id',
                    ['project' => $this->project, 'at' => $this->at, 'closed' => $closed],
                );

        return array_map(intval(...), array_column($found, 'n', 'requirement_id'));
    }

    /**
     * @return array<\stdClass>
     */
    private function linksNow(): array
    {
        return DB::select(
            'select r.requirement_id, r.case_id, r.seen_words < q.words_revision as late from requirements q ' .
                'join case_requirements r on r.requirement_id = q.id join cases c on c.id = r.case_id ' .
                "where q.project_id = ? and q.dropped_at is null and c.binned_at is null and c.state <> 'retired'",
            [$this->project],
        );
    }

    /**
     * @return array<\stdClass>
     */
    private function linksThen(string $at): array
    {
        return DB::select(
            'select r.requirement_id, r.case_id, false as late from requirement_links r ' .
                'join requirement_places q on q.requirement_id = r.requirement_id where r.project_id = :project and ' .
                CellSource::held('q') .
                ' and ' .
                CellSource::held('r', 'linked_at', 'parted_at') .
                ' and not exists (select 1 from case_absences a where a.case_id = r.case_id and ' .
                CellSource::held('a') .
                ')',
            ['project' => $this->project, 'at' => $at],
        );
    }

    /**
     * Each after the one above it.
     *
     * @param  list<object{id: string, key: string, title: string, parent_id: ?string, external_id: ?string}>  $rows by their positions
     *
     * @return list<object{id: string, key: string, title: string, parent_id: ?string, external_id: ?string}>
     */
    private static function inOrder(array $rows): array
    {
        $known = array_column($rows, null, 'id');
        $below = [];
        foreach ($rows as $row) {
            $below[isset($known[$row->parent_id ?? '']) ? (string) $row->parent_id : ''][] = $row;
        }
        $ordered = [];
        $waiting = array_reverse($below[''] ?? []);
        while ([] !== $waiting) {
            $row = array_pop($waiting);
            $ordered[] = $row;
            array_push($waiting, ...array_reverse($below[$row->id] ?? []));
        }

        return $ordered;
    }
}
