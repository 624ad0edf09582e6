<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Data\LinkedDefect;
use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use LucidStep\App\Areas\Walk\Data\AttemptSummary;
use LucidStep\App\Areas\Walk\Data\EarlierAttempt;
use LucidStep\App\Areas\Walk\Data\EarlierStep;
use LucidStep\App\Areas\Walk\Data\StepRecord;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\DefectLink;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\Round;
use LucidStep\App\Models\StepResult;
use LucidStep\App\Support\Secrets\RoundValues;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Execution\StepMatching;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\Verdict;

/**
 * Lays the ended attempts of an entry beside a newer one, step by step.
 */
final class ReadEarlierAttempts
{
    /** The newest so many; those before have a page each. */
    public const MOST = 5;

    /**
     * @return list<EarlierAttempt> the newest first
     */
    public function __invoke(Attempt $attempt): array
    {
        return $this->each([$attempt->loadMissing('rounds')])[$attempt->entry_id];
    }

    /**
     * @param  list<Attempt>  $newer with rounds, of one entry each; they need not be begun yet
     *
     * @return array<string, list<EarlierAttempt>> by entry
     */
    public function each(array $newer): array
    {
        $walked = array_values(array_filter($newer, static fn(Attempt $a): bool => $a->number > 1));
        $ended = [] === $walked ? collect() : $this->ended($walked);
        $gone = $ended->isEmpty()
            ? collect()
            : DB::table('removals')->whereIn('attempt_id', $ended->pluck('id'))->where('kind', 'file')->pluck('subject')->flip();
        $of = $ended->groupBy('entry_id');
        $found = [];
        foreach ($newer as $attempt) {
            $now = self::texts((array) $attempt->snapshot['steps']);
            $rows = self::rows($attempt->rounds->all());
            $found[$attempt->entry_id] = array_values(
                ($of[$attempt->entry_id] ?? collect())
                    ->map(static fn(Attempt $a): EarlierAttempt => self::lay($a, $now, $rows, $gone))
                    ->all(),
            );
        }

        return $found;
    }

    /**
     * @param  non-empty-list<Attempt>  $newer
     *
     * @return Collection<int, Attempt> at most {@see MOST} of each entry, the newest first
     */
    private function ended(array $newer): Collection
    {
        $ids = DB::query()
            ->fromSub(
                DB::table('attempts')
                    ->where(static function (Builder $q) use ($newer): void {
                        foreach ($newer as $a) {
                            $q->orWhere(static fn(Builder $one) => $one->where('entry_id', $a->entry_id)->where('number', '<', $a->number));
                        }
                    })
                    ->whereNot('state', AttemptState::Open->value)
                    ->selectRaw('id, row_number() over (partition by entry_id order by number desc) as nth'),
                'a',
            )
            ->where('nth', '<=', self::MOST)
            ->pluck('id');

        return Attempt::query()
            ->whereIn('id', $ids)
            ->orderByDesc('number')
            ->with(
                'tester',
                'build',
                'configuration',
                'namedEnvironment',
                'rounds.results',
                'evidence.file',
                'evidence.marked',
                'defectLinks.defect',
            )
            ->get()
            ->toBase();
    }

    /**
     * @param  list<Step>  $now
     * @param  array<int, array<string, string>>  $rows
     * @param  Collection<array-key, int>  $gone contents that were taken out, by hash
     */
    private static function lay(Attempt $a, array $now, array $rows, Collection $gone): EarlierAttempt
    {
        $repeated = $a->rounds->pluck('repeats')->filter()->all();
        $counted = $a->rounds->whereNotIn('position', $repeated)->keyBy('position');
        $steps = StepMatching::steps(self::texts((array) $a->snapshot['steps']), $now);
        $evidence = $a->evidence->whereNull('removed_at')->groupBy(static fn(Evidence $e): string => ($e->round ?? 1) . '.' . $e->step);
        $defects = $a->defectLinks->groupBy(static fn(DefectLink $d): string => ($d->round ?? 1) . '.' . $d->step);
        $lines = [];
        foreach (StepMatching::rounds(self::rows($counted->all()), $rows) as $round => $as) {
            $results = $counted[$as['was']]->results->keyBy('position');
            foreach ($steps as $step => $pair) {
                $result = $results[$pair['was']] ?? null;
                $at = "{$as['was']}.{$pair['was']}";
                if (
                    null !== $result &&
                    (Verdict::NotRun !== $result->verdict || '' !== $result->note || $result->tries > 0 || isset($evidence[$at]))
                ) {
                    $lines[] = new EarlierStep(
                        $round,
                        $step,
                        $as['was'],
                        $as['same'],
                        $pair['same'],
                        StepRecord::from($result),
                        array_values(
                            ($evidence[$at] ?? collect())
                                ->map(static fn(Evidence $e): EvidenceItem => EvidenceItem::from($e, isset($gone[$e->sha256 ?? ''])))
                                ->all(),
                        ),
                        array_values(($defects[$at] ?? collect())->map(LinkedDefect::from(...))->all()),
                    );
                }
            }
        }
        $kept = array_column($steps, 'was');
        $lost = $counted
            ->flatMap(static fn(Round $r) => $r->results)
            ->filter(static fn(StepResult $r): bool => Verdict::NotRun !== $r->verdict && !\in_array($r->position, $kept, true))
            ->pluck('position')
            ->unique()
            ->count();

        return new EarlierAttempt(AttemptSummary::from($a), $lines, $lost);
    }

    /**
     * @param  array<array-key, array<string, mixed>>  $steps
     *
     * @return list<Step> without pictures, which do not make a step another one
     */
    private static function texts(array $steps): array
    {
        return array_map(
            static fn(array $s): Step => new Step((string) $s['action'], (string) $s['data'], (string) $s['expected']),
            array_values($steps),
        );
    }

    /**
     * @param  array<array-key, Round>  $rounds
     *
     * @return array<int, array<string, string>> secret values among them: they are compared and not told
     */
    private static function rows(array $rounds): array
    {
        $rows = [];
        foreach ($rounds as $round) {
            $rows[$round->position] = RoundValues::of($round->data_row, true)[0];
        }

        return $rows;
    }
}
