<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Queries\ReadCase;
use LucidStep\App\Areas\Casebook\Queries\TextChecks;
use LucidStep\App\Areas\Cycles\Actions\CycleLog;
use LucidStep\App\Areas\Cycles\Actions\OpenCycle;
use LucidStep\App\Areas\Walk\Data\NewVersionPreview;
use LucidStep\App\Areas\Walk\Exceptions\EntryConflict;
use LucidStep\App\Areas\Walk\Queries\CaseSnapshot;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Round;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Record\Journal;
use LucidStep\Core\Casebook\Review;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Execution\AttemptSize;
use LucidStep\Core\Execution\Carried;
use LucidStep\Core\Planning\CycleLogKind;
use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Verdict\Policies;

/**
 * An entry whose case was changed after it was planned takes the new version: an open attempt keeps the verdicts of
 * unchanged steps, marked as carried; a finished one keeps its version, the next attempt walks the new one.
 */
final readonly class TakeNewVersion
{
    public function __construct(
        private Journal $journal,
        private RefreshEntry $refresh,
        private CycleLog $log,
        private ReadCase $cases,
        private RollUpVerdicts $rollUp,
        private TextChecks $checks,
    ) {}

    /**
     * The version an entry would take: the newest, or the newest approved where only those are walked.
     */
    public static function newest(TestCase $case, Project $project): string
    {
        return Review::walked(
            (string) $case->version_id,
            $case->approved_version_id,
            Policies::fromArray($project->policies)->onlyApprovedCases,
        );
    }

    public function preview(Entry $entry): NewVersionPreview
    {
        [$from, $to] = $this->versions($entry);
        $carried = $this->carried($entry, $to);
        $walked = null === $carried ? 0 : \count($carried[1]);
        $kept = null === $carried ? 0 : \count(array_intersect_key(array_flip($carried[0]), $carried[1]));

        return new NewVersionPreview(
            $from->number,
            $to->number,
            null !== $carried,
            $kept,
            max(0, $walked - $kept),
            null === $carried ? 0 : \count($carried[2]) - \count($carried[0]),
            $this->cases->comparison($from, $to),
        );
    }

    /**
     * @throws Conflict when the entry has the newest version already, or that cannot be walked
     */
    public function __invoke(Entry $entry, User $user): Entry
    {
        $cycle = OpenCycle::lock(Cycle::query()->findOrFail($entry->cycle_id));
        $entry = Entry::query()->lockForUpdate()->with('case')->findOrFail($entry->id);
        [$from, $to] = $this->versions($entry);
        $errors = $this->checks->errors($entry->project_id, [$to->id]);
        if ([] !== $errors) {
            throw EntryConflict::textHasErrors($to->number, $errors[$to->id][0]);
        }
        $carried = $this->carried($entry, $to);
        if (null !== $carried) {
            $this->refuseOthers($entry, $user);
            $tooLarge = AttemptSize::tooLarge(\count($carried[2]), Round::query()->where('attempt_id', $entry->open_attempt_id)->count());
            if (null !== $tooLarge) {
                throw EntryConflict::tooLarge($tooLarge);
            }
            $this->carry($entry, $user, $to, $carried[0], $carried[2]);
        }
        $entry->case_version_id = $to->id;
        ($this->refresh)($entry);
        ($this->log)(
            $cycle,
            $user,
            CycleLogKind::VersionTaken,
            "{$entry->case->key} takes version {$to->number} instead of {$from->number}" .
                (null === $carried
                    ? ''
                    : \sprintf('; %d verdicts carried', \count(array_intersect_key(array_flip($carried[0]), $carried[1])))),
        );

        return $entry->refresh();
    }

    /**
     * Whoever walks takes it: their device must not go on by the numbers of steps that are no more.
     */
    private function refuseOthers(Entry $entry, User $user): void
    {
        $open = Attempt::query()->with('tester')->findOrFail($entry->open_attempt_id);
        if ($open->tester_id !== $user->id) {
            throw EntryConflict::noVersionWhileWalked($open);
        }
    }

    /**
     * @return array{CaseVersion, CaseVersion}
     */
    private function versions(Entry $entry): array
    {
        $case = TestCase::query()->findOrFail($entry->case_id);
        $newest = self::newest($case, Project::query()->findOrFail($entry->project_id));
        if ($newest === $entry->case_version_id) {
            throw EntryConflict::newestAlready();
        }

        return [
            CaseVersion::query()->with('steps')->findOrFail($entry->case_version_id),
            CaseVersion::query()->with('steps')->findOrFail($newest),
        ];
    }

    /**
     * @return ?array{array<int, int>, array<int, true>, list<array<string, mixed>>} old place by new place (from 0), old
     *     places with a verdict, the new steps; null without an open attempt
     */
    private function carried(Entry $entry, CaseVersion $to): ?array
    {
        $open = null === $entry->open_attempt_id ? null : Attempt::query()->find($entry->open_attempt_id);
        if (null === $open) {
            return null;
        }
        $steps = CaseSnapshot::steps($to, $entry->project_id);
        $plain = static fn(array $s): Step => new Step((string) $s['action'], (string) $s['data'], (string) $s['expected']);
        $judged = [];
        foreach (
            DB::table('step_results')
                ->join('rounds', 'rounds.id', '=', 'round_id')
                ->where('attempt_id', $open->id)
                ->whereNot('verdict', 'not_run')
                ->distinct()
                ->pluck('step_results.position')
            as $position
        ) {
            $judged[$position - 1] = true;
        }

        return [Carried::steps(array_map($plain, array_values($open->snapshot['steps'])), array_map($plain, $steps)), $judged, $steps];
    }

    /**
     * @param  array<int, int>  $carried old place by new place
     * @param  list<array<string, mixed>>  $steps
     */
    private function carry(Entry $entry, User $user, CaseVersion $to, array $carried, array $steps): void
    {
        $attempt = Attempt::query()->lockForUpdate()->findOrFail($entry->open_attempt_id);
        $now = Carbon::now()->utc()->format('Y-m-d\TH:i:s.v\Z');
        $steps = array_map(
            static fn(array $s, int $i): array => isset($carried[$i]) ? [...$s, 'carried_at' => $now] : $s,
            $steps,
            array_keys($steps),
        );
        self::moveSteps($attempt->id, $carried, \count($steps));
        $attempt->snapshot = [
            ...$attempt->snapshot,
            'version' => $to->number,
            'title' => $to->title,
            'objective' => $to->objective,
            'preconditions' => $to->preconditions,
            'postconditions' => $to->postconditions,
            'steps' => $steps,
            'secret' => CaseSnapshot::hasSecrets($to),
        ];
        $this->journal->append(
            $attempt,
            $user,
            'version_taken',
            [
                'from' => $entry->case_version_id,
                'to' => $to->id,
                'snapshot_sha256' => hash('sha256', CanonicalJson::encode($attempt->snapshot)),
                'carried' => array_values(
                    array_map(
                        static fn(int $now, int $was): array => ['from' => $was + 1, 'to' => $now + 1],
                        array_keys($carried),
                        $carried,
                    ),
                ),
            ],
            new DeviceStamp(),
        );
        ($this->rollUp)(
            $attempt,
            array_values(Round::query()->where('attempt_id', $attempt->id)->with('results')->orderBy('position')->get()->all()),
        );
        $attempt->save();
    }

    /**
     * Results, evidence and defects of carried steps follow them to their new places, in every round at once. Results of
     * steps that are gone stay in the record by their events.
     *
     * @param  array<int, int>  $carried old place by new place, from 0
     * @param  int  $steps   how many steps there are now
     */
    private static function moveSteps(string $attempt, array $carried, int $steps): void
    {
        $one = static fn(int $at): int => $at + 1;
        $from = '{' . implode(',', array_map($one, array_values($carried))) . '}';
        $to = '{' . implode(',', array_map($one, array_keys($carried))) . '}';
        $ofAttempt = 'step_results.round_id in (select id from rounds where attempt_id = ?)';
        DB::delete("delete from step_results where {$ofAttempt} and position <> all (?::int[])", [$attempt, $from]);
        // Two steps may change places, and no place may be held twice in between.
        DB::update("update step_results set position = -position where {$ofAttempt}", [$attempt]);
        DB::update(
            'update step_results set position = moved.now from unnest(?::int[], ?::int[]) as moved (was, now) ' .
                "where {$ofAttempt} and position = -moved.was",
            [$from, $to, $attempt],
        );
        DB::insert(
            'insert into step_results (id, round_id, position) select gen_random_uuid(), rounds.id, places.position ' .
                'from rounds cross join generate_series(1, ?::int) as places (position) where attempt_id = ? ' .
                'on conflict (round_id, position) do nothing',
            [$steps, $attempt],
        );
        foreach (['evidence', 'defect_links'] as $table) {
            DB::update(
                "update {$table} set step = (select now from unnest(?::int[], ?::int[]) as moved (was, now) where was = step) " .
                    'where attempt_id = ? and step is not null',
                [$from, $to, $attempt],
            );
        }
    }
}
