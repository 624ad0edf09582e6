<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Queries;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Data\CaseCare;
use LucidStep\App\Areas\Casebook\Data\CaseLine;
use LucidStep\App\Areas\Casebook\Data\SimilarCases;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Planning\Groups;

/**
 * Reads which cases need a look: not walked for long, and likely doubles in groups.
 */
final readonly class ReadCare
{
    /** Not walked for so many days is long, when nobody says else. */
    public const STALE_DAYS = 90;

    private const MOST_STALE = 200;

    /** So many pairs are put into groups, the most alike first. */
    private const MOST_PAIRS = 1000;

    private const MOST_GROUPS = 50;

    public function __invoke(Project $project, int $days): CaseCare
    {
        $stale = TestCase::query()
            ->where('project_id', $project->id)
            ->whereNull('binned_at')
            ->where('state', '<>', CaseState::Retired)
            ->where('is_template', false)
            ->where(
                static fn($q) => $q
                    ->where('last_walked_at', '<', Carbon::now()->subDays($days))
                    ->orWhere(static fn($r) => $r->whereNull('last_walked_at')->where('created_at', '<', Carbon::now()->subDays($days))),
            )
            ->with('owner')
            ->orderByRaw('last_walked_at asc nulls first, number')
            ->limit(self::MOST_STALE)
            ->get();

        return new CaseCare(
            array_values($stale->map(static fn(TestCase $c): CaseLine => CaseLine::from($c))->all()),
            $days,
            $this->similar($project),
        );
    }

    /**
     * @return list<SimilarCases> those most alike first
     */
    private function similar(Project $project): array
    {
        $pairs = DB::table('case_doubles')
            ->join('cases as a', 'a.id', '=', 'case_doubles.case_id')
            ->join('cases as b', 'b.id', '=', 'other_id')
            ->where('a.project_id', $project->id)
            ->whereNull('a.binned_at')
            ->whereNull('b.binned_at')
            ->where('a.state', '<>', CaseState::Retired)
            ->where('b.state', '<>', CaseState::Retired)
            ->where('set_aside', false)
            ->orderByDesc('score')
            ->orderBy('a.number')
            ->limit(self::MOST_PAIRS)
            ->get(['case_id', 'other_id', 'score']);
        $cases = TestCase::query()
            ->whereIn('id', $pairs->pluck('case_id')->merge($pairs->pluck('other_id'))->unique())
            ->with('owner')
            ->orderBy('number')
            ->get();
        $ids = array_values($cases->map(static fn(TestCase $c): string => $c->id)->all());
        $group = $score = [];
        foreach (
            Groups::along($ids, array_values($pairs->map(static fn($p): array => [$p->case_id, $p->other_id])->all()))
            as $n => $places
        ) {
            foreach ($places as $place) {
                $group[$ids[$place]] = $n;
            }
        }
        foreach ($pairs as $pair) {
            $score[$group[$pair->case_id]] ??= (float) $pair->score;
        }
        $groups = [];
        foreach (\array_slice($score, 0, self::MOST_GROUPS, true) as $n => $most) {
            $in = $cases->filter(static fn(TestCase $c): bool => $group[$c->id] === $n);
            $groups[] = new SimilarCases(array_values($in->map(static fn(TestCase $c): CaseLine => CaseLine::from($c))->all()), $most);
        }

        return $groups;
    }
}
