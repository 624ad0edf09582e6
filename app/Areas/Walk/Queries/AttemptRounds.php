<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Walk\Data\RoundRecord;
use LucidStep\App\Areas\Walk\Data\RoundValue;
use LucidStep\App\Areas\Walk\Data\StepRecord;
use LucidStep\App\Areas\Walk\Data\StepText;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Round;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Secrets\RoundValues;
use LucidStep\Core\Data\Mask;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\Verdict;

/**
 * The rounds of a walk as they are shown: their rows, and the steps that read otherwise than in the first one.
 *
 * @phpstan-import-type SnapshotStep from StepText
 */
final class AttemptRounds
{
    /**
     * @param  array<string, mixed>  $snapshot the attempt's, read once: reading it is dear
     * @param  array<array-key, Round>  $rounds
     *
     * @return array{list<StepText>, list<RoundRecord>} the steps of the first round, and all rounds
     */
    public static function of(Attempt $attempt, array $snapshot, array $rounds, bool $clear): array
    {
        $steps = array_values((array) $snapshot['steps']);
        $columns = (array) ($snapshot['columns'] ?? []);
        $first = [];
        $out = [];
        $blank = array_map(static fn(array $s): StepRecord => StepRecord::blank($s['position']), $steps);
        $records = $attempt->exists ? self::records($rounds) : [];
        foreach (array_values($rounds) as $i => $round) {
            $data = $round->data_row;
            [$values, $secrets] = RoundValues::of($data, $clear);
            $texts = AttemptText::steps($steps, $values, $secrets, true);
            if (0 === $i) {
                $first = $texts;
            }
            $row = [];
            $names = array_map(strval(...), array_keys($data));
            foreach (array_values(array_unique([...array_intersect($columns, $names), ...$names])) as $name) {
                $key = mb_strtolower($name);
                $hidden = \in_array($key, $secrets, true);
                $row[] = new RoundValue($name, $hidden ? Mask::DOTS : $values[$key], \is_array($data[$name]), $hidden);
            }
            $out[] = RoundRecord::from(
                $round,
                $attempt->exists ? $records[$round->id] ?? [] : $blank,
                $row,
                0 === $i ? [] : self::others($texts, $first),
            );
        }

        return [array_map(StepText::fromSnapshot(...), $first), $out];
    }

    /**
     * @param  list<SnapshotStep>  $texts
     * @param  list<SnapshotStep>  $first
     *
     * @return list<StepText> those that read otherwise than in the first round
     */
    private static function others(array $texts, array $first): array
    {
        $others = [];
        foreach ($texts as $at => $text) {
            if ($text !== $first[$at]) {
                $others[] = StepText::fromSnapshot($text);
            }
        }

        return $others;
    }

    /**
     * @param  array<array-key, Round>  $rounds
     *
     * @return array<string, list<StepRecord>> what was recorded, by round and in order
     */
    private static function records(array $rounds): array
    {
        $records = [];
        foreach (
            DB::table('step_results')
                ->whereIn('round_id', array_map(static fn(Round $r): string => $r->id, $rounds))
                ->orderBy('position')
                ->get(['round_id', ...StepRecord::COLUMNS])
            as $row
        ) {
            $records[$row->round_id][] = StepRecord::fromRow($row);
        }

        return $records;
    }

    /**
     * The attempt that an entry would begin now; it is not saved.
     *
     * @param  Entry  $entry with cycle.build and configuration loaded
     */
    public static function planned(Entry $entry, CaseVersion $version, User $user): Attempt
    {
        $steps = CaseSnapshot::steps($version, $entry->project_id);
        $attempt = new Attempt([
            'entry_id' => $entry->id,
            'number' => $entry->attempts_count + 1,
            'snapshot' => ['steps' => $steps, 'columns' => CaseSnapshot::columns($version)],
            'tester_id' => $user->id,
            'state' => AttemptState::Open,
        ]);
        $attempt->setRelation('tester', $user)->setRelation(
            'rounds',
            Round::query()
                ->getModel()
                ->newCollection(self::blank(CaseSnapshot::rows($entry, $version))),
        );

        return $attempt;
    }

    /**
     * Rounds that nobody has begun.
     *
     * @param  list<array<string, mixed>>  $rows
     *
     * @return list<Round>
     */
    private static function blank(array $rows): array
    {
        $made = [];
        foreach ($rows as $at => $row) {
            $made[] = new Round([
                'position' => $at + 1,
                'data_row' => $row,
                'roll_up' => Verdict::NotRun,
                'skipped' => null,
                'repeats' => null,
            ]);
        }

        return $made;
    }
}
