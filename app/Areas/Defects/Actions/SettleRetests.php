<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Data\DefectMove;
use LucidStep\App\Areas\Defects\Queries\DuplicateChains;
use LucidStep\App\Areas\Defects\Queries\ReadFixProgress;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Defects\Chains;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Verdict\Policies;
use LucidStep\Core\Verdict\Verdict;

/**
 * What walking with a fix does to the defects of an entry by itself: a step that fails and names one opens it again, and it is verified
 * once all that was to be walked again has passed.
 */
final readonly class SettleRetests
{
    public function __construct(private ChangeDefectState $move, private ReadFixProgress $progress) {}

    /**
     * @param  Attempt  $attempt locked, with its verdicts saved
     */
    public function __invoke(Attempt $attempt, User $by): void
    {
        $linked = DB::table('defect_links')->where('entry_id', $attempt->entry_id)->distinct()->pluck('defect_id')->all();
        if ([] === $linked || null === $attempt->build_id) {
            return;
        }
        $duplicates = DuplicateChains::of($attempt->project_id);
        $firsts = array_unique(array_map(static fn(mixed $id): string => $duplicates->first((string) $id), $linked));
        $defects = Defect::query()
            ->whereKey($firsts)
            ->whereNotNull('fixed_build_id')
            ->with('fixedBuild')
            ->orderBy('id')
            ->lockForUpdate()
            ->get();
        $build = $defects->isEmpty() ? null : Build::query()->findOrFail($attempt->build_id);
        foreach ($defects as $defect) {
            if (null !== $build && $build->position >= (int) $defect->fixedBuild?->position) {
                $this->settle($defect, $attempt, $by, $duplicates, "attempt {$attempt->number} on {$build->name}");
            }
        }
    }

    private function settle(Defect $defect, Attempt $attempt, User $by, Chains $duplicates, string $where): void
    {
        if ($defect->state->isReopenedByFailing() && $this->names($attempt, $duplicates->allOf($defect->id))) {
            $before = DefectChange::query()->where('defect_id', $defect->id)->where('attempt_id', $attempt->id);
            if ($before->where('to_state', DefectState::Reopened)->doesntExist()) {
                $move = new DefectMove(DefectState::Reopened, "Failed again: {$where}.", attempt: $attempt);
                ($this->move)($defect, $by, $move, true);
            }

            return;
        }
        if (DefectState::Fixed !== $defect->state || !$this->verifies($defect)) {
            return;
        }
        $progress = ($this->progress)($defect, $duplicates);
        if (null !== $progress && $progress->proven) {
            $note = "Passed on {$progress->passed} of {$progress->of}: {$where}.";
            ($this->move)($defect, $by, new DefectMove(DefectState::Verified, $note, attempt: $attempt), true);
        }
    }

    /**
     * Whether a step that failed in this walk, or the whole of it, is linked to one of them.
     *
     * @param  list<string>  $defects ids
     */
    private function names(Attempt $attempt, array $defects): bool
    {
        return DB::table('defect_links as l')
            ->where('l.attempt_id', $attempt->id)
            ->whereIn('l.defect_id', $defects)
            ->where(
                static fn($q) => $q
                    ->where(static fn($q) => $q->whereNull('l.step')->whereRaw('? = ?', [$attempt->verdict?->value, Verdict::Fail->value]))
                    ->orWhereExists(
                        static fn($q) => $q
                            ->from('rounds as r')
                            ->join('step_results as s', 's.round_id', '=', 'r.id')
                            ->whereColumn('r.attempt_id', 'l.attempt_id')
                            ->whereRaw('r.position = coalesce(l.round, 1)')
                            ->whereColumn('s.position', 'l.step')
                            ->where('s.verdict', Verdict::Fail),
                    ),
            )
            ->exists();
    }

    private function verifies(Defect $defect): bool
    {
        return Policies::fromArray(Project::query()->findOrFail($defect->project_id)->policies)->retestsVerify;
    }
}
