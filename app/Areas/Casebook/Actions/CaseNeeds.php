<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Data\CaseNeed;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\LoopRefused;

/**
 * What a case usually waits for: a suggestion that its entries take over when they are planned.
 */
final readonly class CaseNeeds
{
    public function __construct(private PublishChange $announce) {}

    /**
     * @return list<CaseNeed>
     */
    public function of(TestCase $case): array
    {
        return array_values(
            DB::table('case_conditions')
                ->join('cases', 'cases.id', '=', 'needs_id')
                ->where('case_id', $case->id)
                ->orderBy('cases.number')
                ->get(['cases.id', 'cases.key', 'cases.title', 'kind'])
                ->map(static fn(object $n): CaseNeed => new CaseNeed($n->id, $n->key, $n->title, $n->kind))
                ->all(),
        );
    }

    /**
     * @param  list<array{case: string, kind: string}>  $needs by key or id
     *
     *
     * @throws ValidationException when a case is not there, or cases would wait for each other: the loop is named
     * @return list<CaseNeed>
     */
    public function write(TestCase $case, array $needs): array
    {
        $wanted = array_map(static fn(array $n): string => Str::isUuid($n['case']) ? $n['case'] : mb_strtoupper(trim($n['case'])), $needs);
        $known = TestCase::query()
            ->where('project_id', $case->project_id)
            ->whereNull('binned_at')
            ->where(static fn($q) => $q->whereIn('key', $wanted)->orWhereIn('id', array_filter($wanted, Str::isUuid(...))))
            ->get(['id', 'key']);
        $rows = [];
        foreach ($needs as $i => $need) {
            $id = ($known->firstWhere('key', $wanted[$i]) ?? $known->firstWhere('id', $wanted[$i]))?->id;
            if (null === $id || $id === $case->id) {
                throw ValidationException::withMessages([
                    "needs.{$i}.case" =>
                        null === $id ? "There is no case {$need['case']} in this project." : 'A case does not wait for itself.',
                ]);
            }
            $rows[$id] = ['case_id' => $case->id, 'needs_id' => $id, 'kind' => $need['kind']];
        }
        $others = DB::table('case_conditions')
            ->join('cases', 'cases.id', '=', 'case_id')
            ->where('cases.project_id', $case->project_id)
            ->whereNot('case_id', $case->id)
            ->get(['case_id', 'needs_id', 'kind'])
            ->map(static fn(\stdClass $r): array => (array) $r)
            ->all();
        try {
            Conditions::of(
                array_map(static fn(array $c): Condition => new Condition($c['case_id'], $c['needs_id'], ConditionKind::from($c['kind'])), [
                    ...$others,
                    ...array_values($rows),
                ]),
            );
        } catch (LoopRefused $e) {
            throw ValidationException::withMessages([
                'needs' => $e->named(DB::table('cases')->whereIn('id', $e->loop)->pluck('key', 'id')->all(), 'cases'),
            ]);
        }
        DB::table('case_conditions')->where('case_id', $case->id)->delete();
        DB::table('case_conditions')->insert(array_values($rows));
        ($this->announce)($case->project_id, 'case', $case->id);

        return $this->of($case);
    }
}
