<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Coverage\Data\CoverageLenses;
use LucidStep\App\Areas\Coverage\Data\CoverageTree;
use LucidStep\App\Areas\Coverage\Data\RequirementRow;
use LucidStep\App\Areas\Coverage\Data\StateCount;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Data\Named;
use LucidStep\Core\Coverage\RequirementNode;
use LucidStep\Core\Coverage\RequirementTree;
use LucidStep\Core\Defects\DefectState;

/**
 * Reads what is proven of the requirements of a project (rules of the job, 2).
 */
final class ReadCoverage
{
    /**
     * @param  bool  $seesDefects whether whoever asks may know of defects
     */
    public function __invoke(Project $project, CoverageLens $lens, bool $seesDefects = true): CoverageTree
    {
        $requirements = $this->requirements($project->id);
        [$links, $late] = $this->links($project->id);
        $outcomes = CaseOutcomes::of($project->id, $lens);
        $places = $cases = [];
        foreach ($links as $of) {
            foreach ($of as $case) {
                if (!isset($places[$case])) {
                    $places[$case] = \count($places);
                    if (isset($outcomes[$case])) {
                        $cases[$places[$case]] = $outcomes[$case]['outcome'];
                    }
                }
            }
        }
        $nodes = array_map(
            static fn(object $r): RequirementNode => new RequirementNode(
                $r->id,
                $r->parent_id,
                array_map(static fn(string $case): int => $places[$case], $links[$r->id] ?? []),
            ),
            $requirements,
        );
        // One above all: what the whole project comes to.
        $all = new RequirementNode('', null, []);
        $nodes = array_map(
            static fn(RequirementNode $n): RequirementNode => new RequirementNode($n->id, $n->parent ?? '', $n->cases),
            $nodes,
        );
        $found = (new RequirementTree([$all, ...$nodes], $cases))->outcomes();
        $defects = $seesDefects ? $this->openDefects($project->id) : [];
        $rows = array_map(
            static fn(object $r): RequirementRow => new RequirementRow(
                $r->id,
                $r->key,
                $r->title,
                $r->parent_id,
                $r->external_id,
                $found[$r->id]->state->value,
                $found[$r->id]->cases,
                $found[$r->id]->walked,
                \count($links[$r->id] ?? []),
                $late[$r->id] ?? 0,
                $defects[$r->id] ?? 0,
                StateCount::all($found[$r->id]->caseCounts),
            ),
            $requirements,
        );
        $top = $found[''];
        $counts = [] === $requirements ? [] : $top->counts;

        return new CoverageTree(
            Carbon::now()->toIso8601ZuluString(),
            StateCount::all($counts),
            $top->cases,
            $top->walked,
            self::inOrder($rows),
            $this->lenses($project->id),
        );
    }

    private function lenses(string $project): CoverageLenses
    {
        $named = static fn(string $table, string $order): array => array_values(
            DB::table($table)
                ->where('project_id', $project)
                ->orderBy($order)
                ->get(['id', 'name'])
                ->map(static fn(\stdClass $r): Named => new Named($r->id, $r->name))
                ->all(),
        );

        return new CoverageLenses(
            $named('releases', 'position'),
            $named('builds', 'position'),
            $named('configurations', 'position'),
            $named('milestones', 'due_on'),
        );
    }

    /**
     * @return list<object{id: string, key: string, title: string, parent_id: ?string, external_id: ?string}>
     */
    private function requirements(string $project): array
    {
        /** @var list<object{id: string, key: string, title: string, parent_id: ?string, external_id: ?string}> $found */
        $found = DB::select(
            'select id, key, title, parent_id, external_id from requirements where project_id = ? and dropped_at is null ' .
                'order by position, number',
            [$project],
        );

        return $found;
    }

    /**
     * @return array{array<string, list<string>>, array<string, int>} cases of each requirement, and how many of them are to be looked at
     */
    private function links(string $project): array
    {
        $links = $late = [];
        foreach (
            DB::select(
                'select r.requirement_id, r.case_id, r.seen_words < q.words_revision as late from requirements q ' .
                    'join case_requirements r on r.requirement_id = q.id join cases c on c.id = r.case_id ' .
                    "where q.project_id = ? and q.dropped_at is null and c.binned_at is null and c.state <> 'retired'",
                [$project],
            )
            as $link
        ) {
            $links[$link->requirement_id][] = $link->case_id;
            if ($link->late) {
                $late[$link->requirement_id] = ($late[$link->requirement_id] ?? 0) + 1;
            }
        }

        return [$links, $late];
    }

    /**
     * @return array<string, int> by requirement
     */
    private function openDefects(string $project): array
    {
        $closed = array_map(static fn(DefectState $s): string => $s->value, DefectState::closed());

        return array_map(
            intval(...),
            array_column(
                DB::select(
                    'select r.requirement_id, count(distinct d.id) as n from defects d join defect_links l on l.defect_id = d.id ' .
                        'join entries e on e.id = l.entry_id join case_requirements r on r.case_id = e.case_id ' .
                        'where d.project_id = ? and d.state <> all (?::text[]) group by r.requirement_id',
                    [$project, '{' . implode(',', $closed) . '}'],
                ),
                'n',
                'requirement_id',
            ),
        );
    }

    /**
     * Each after the one above it.
     *
     * @param  list<RequirementRow>  $rows in the order of their positions
     *
     * @return list<RequirementRow>
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
