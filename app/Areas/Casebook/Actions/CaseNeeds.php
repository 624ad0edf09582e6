<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Data\CaseNeed;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\LoopRefused;

/**
 * What cases usually wait for: a suggestion that their entries take over when they are planned.
 */
final readonly class CaseNeeds
{
    public function __construct(private CaseWriterFactory $writers) {}

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
    public function write(TestCase $case, User $user, array $needs): array
    {
        $wanted = array_map(static fn(array $n): string => Str::isUuid($n['case']) ? $n['case'] : mb_strtoupper(trim($n['case'])), $needs);
        $known = TestCase::query()
            ->where('project_id', $case->project_id)
            ->whereNull('binned_at')
            ->where(static fn($q) => $q->whereIn('key', $wanted)->orWhereIn('id', array_filter($wanted, Str::isUuid(...))))
            ->get(['id', 'key']);
        $kinds = [];
        foreach ($needs as $i => $need) {
            $id = ($known->firstWhere('key', $wanted[$i]) ?? $known->firstWhere('id', $wanted[$i]))?->id;
            if (null === $id || $id === $case->id) {
                throw ValidationException::withMessages([
                    "needs.{$i}.case" =>
                        null === $id ? "There is no case {$need['case']} in this project." : 'A case does not wait for itself.',
                ]);
            }
            $kinds[$id] = $need['kind'];
        }
        try {
            $this->replace(Project::query()->findOrFail($case->project_id), $user, [$case->id => $kinds]);
        } catch (LoopRefused $e) {
            throw ValidationException::withMessages(['needs' => $this->named($e)]);
        }

        return $this->of($case);
    }

    /**
     * Replaces what some cases wait for; each whose conditions are others then has a line in its log.
     *
     * @param  array<string, array<string, string>>  $needs by case: the kind by the case that it needs
     *
     * @throws LoopRefused when cases would wait for each other
     */
    public function replace(Project $project, User $user, array $needs): void
    {
        $all = DB::table('case_conditions')
            ->join('cases', 'cases.id', '=', 'case_id')
            ->where('cases.project_id', $project->id)
            ->get(['case_id', 'needs_id', 'kind'])
            ->groupBy('case_id')
            ->map(static fn($some): array => $some->pluck('kind', 'needs_id')->all())
            ->all();
        $conditions = [];
        foreach ([...$all, ...$needs] as $case => $kinds) {
            foreach ($kinds as $other => $kind) {
                $conditions[] = new Condition((string) $case, (string) $other, ConditionKind::from($kind));
            }
        }
        Conditions::of($conditions);
        $keys = DB::table('cases')
            ->whereIn('id', array_merge([], ...array_map(array_keys(...), [...array_values($all), ...array_values($needs)])))
            ->pluck('key', 'id')
            ->all();
        $writer = $this->writers->for($project, $user);
        foreach ($needs as $case => $kinds) {
            $before = self::words($all[$case] ?? [], $keys);
            $after = self::words($kinds, $keys);
            if ($before !== $after) {
                DB::table('case_conditions')->where('case_id', $case)->delete();
                DB::table('case_conditions')->insert(
                    array_map(
                        static fn(string $other, string $kind): array => ['case_id' => $case, 'needs_id' => $other, 'kind' => $kind],
                        array_keys($kinds),
                        $kinds,
                    ),
                );
                $writer->log($case, 'edited', ['fields' => ['usually_waits_for' => [$before, $after]]]);
            }
        }
        $writer->end();
    }

    public function named(LoopRefused $loop): string
    {
        return $loop->named(DB::table('cases')->whereIn('id', $loop->loop)->pluck('key', 'id')->all(), 'cases');
    }

    /**
     * @param  array<string, string>  $kinds by the case that is needed
     * @param  array<string, string>  $keys by id
     *
     * @return list<string>
     */
    private static function words(array $kinds, array $keys): array
    {
        $words = array_map(
            static fn(string $other, string $kind): string => ConditionKind::from($kind)->words($keys[$other] ?? $other),
            array_keys($kinds),
            $kinds,
        );
        sort($words);

        return $words;
    }
}
