<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Support\Collection;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectLink;
use LucidStep\App\Models\Evidence;

/**
 * What was captured that belongs to a defect: of each step it is linked to all, or what was chosen there.
 */
final class DefectEvidence
{
    /**
     * @return Collection<int, Evidence> with their files, in the order in which they were captured
     */
    public function of(Defect $defect): Collection
    {
        $links = $defect->loadMissing('links')->links;

        return Evidence::query()
            ->with('file', 'marked')
            ->whereNull('removed_at')
            ->whereIn('attempt_id', $links->pluck('attempt_id'))
            ->orderBy('created_at')
            ->get()
            ->filter(static fn(Evidence $e): bool => $links->contains(static fn(DefectLink $l): bool => self::belongs($e, $l)))
            ->values();
    }

    private static function belongs(Evidence $evidence, DefectLink $link): bool
    {
        return $link->attempt_id === $evidence->attempt_id &&
            (null === $link->evidence
                ? null === $link->step || ($link->step === $evidence->step && ($link->round ?? 1) === ($evidence->round ?? 1))
                : \in_array($evidence->id, $link->evidence, true));
    }
}
