<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Casebook\CaseSimilarity;
use LucidStep\Core\Casebook\CaseState;

/**
 * Keeps the list of likely doubles: for a case whose text changed, those with titles like its own are looked at.
 */
final class FindSimilarCases
{
    /** How many cases with like titles are compared in full. */
    private const CANDIDATES = 15;

    public function of(TestCase $case): void
    {
        DB::table('case_doubles')
            ->where('set_aside', false)
            ->where(static fn($q) => $q->where('case_id', $case->id)->orWhere('other_id', $case->id))
            ->delete();
        $likely = DB::table('cases')
            ->where('project_id', $case->project_id)
            ->whereNull('binned_at')
            ->where('id', '<>', $case->id)
            ->where('state', '<>', CaseState::Retired)
            ->whereRaw('title % ?', [$case->title])
            ->orderByRaw('similarity(title, ?) desc', [$case->title])
            ->limit(self::CANDIDATES)
            ->get(['id', 'title', 'words']);
        $self = new CaseSimilarity($case->title, $case->words);
        $rows = [];
        foreach ($likely as $other) {
            $score = $self->likeness(new CaseSimilarity($other->title, $other->words));
            if ($score >= CaseSimilarity::LIKELY) {
                $pair = [$case->id, $other->id];
                sort($pair);
                $rows[] = ['case_id' => $pair[0], 'other_id' => $pair[1], 'score' => round($score, 3)];
            }
        }
        DB::table('case_doubles')->insertOrIgnore($rows);
    }
}
