<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use LucidStep\App\Areas\Defects\Data\DefectLine;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Defect;

/**
 * The defects that are linked to this very step already, in any cycle and on any configuration. A step is the same where
 * its case says the same to do, wherever it stood then.
 */
final class KnownDefects
{
    /**
     * @return list<DefectLine> open ones first, the newest link first
     */
    public function __invoke(Attempt $attempt, ?int $step): array
    {
        $lines = DefectLines::of($this->ids($attempt, $step));
        // Sorting keeps the order in which they were linked.
        usort($lines, static fn(DefectLine $a, DefectLine $b): int => $a->closed <=> $b->closed);

        return $lines;
    }

    /**
     * @return list<string> the newest link first
     */
    public function ids(Attempt $attempt, ?int $step): array
    {
        $action = null === $step ? null : $attempt->snapshot['steps'][$step - 1]['action'] ?? null;
        if (null === $action) {
            return [];
        }
        $ids = Defect::query()
            ->toBase()
            ->join('defect_links', 'defect_links.defect_id', '=', 'defects.id')
            ->join('attempts', 'attempts.id', '=', 'defect_links.attempt_id')
            ->join('entries', 'entries.id', '=', 'attempts.entry_id')
            ->where('defects.project_id', $attempt->project_id)
            ->where('entries.case_id', $attempt->snapshot['case_id'])
            ->whereNotNull('defect_links.step')
            ->whereRaw("attempts.snapshot->'steps'->(defect_links.step - 1)->>'action' = ?", [$action])
            ->groupBy('defects.id')
            ->selectRaw(
                'defects.id, max(defect_links.created_at) as linked, bool_or(defect_links.attempt_id = ? and ' .
                    'defect_links.step = ?) as here',
                [$attempt->id, $step],
            )
            ->orderByDesc('linked')
            ->limit(20)
            ->get()
            ->where('here', false)
            ->pluck('id')
            ->all();
        return array_values(array_map(strval(...), $ids));
    }
}
