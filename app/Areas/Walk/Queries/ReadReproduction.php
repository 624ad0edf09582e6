<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use LucidStep\App\Areas\Walk\Data\BesideDifference;
use LucidStep\App\Areas\Walk\Data\PassedBeside;
use LucidStep\App\Areas\Walk\Data\Reproduction;
use LucidStep\App\Areas\Walk\Data\ReproductionStep;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectLink;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\Round;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Secrets\RoundValues;
use LucidStep\Core\Defects\PassBeside;
use LucidStep\Core\Defects\WalkedRound;
use LucidStep\Core\Defects\WalkFacts;

/**
 * Reads how to get to a fault, and lays a pass of the failing step beside it. Secret values are never told.
 *
 * @phpstan-import-type SnapshotStep from \LucidStep\App\Areas\Walk\Data\StepText
 */
final readonly class ReadReproduction
{
    /** So many rounds in which the step passed are looked at, the newest ones. */
    private const MOST = 1000;

    public function __construct(private ReadRemovals $removals) {}

    /**
     * @return ?Reproduction null where the defect was met on no walk
     */
    public function __invoke(Defect $defect): ?Reproduction
    {
        $links = DefectLink::query()->where('defect_id', $defect->id)->orderByDesc('created_at')->limit(50)->get();
        // A step tells more than a whole walk.
        $link = $links->first(static fn(DefectLink $l): bool => null !== $l->step) ?? $links->first();
        if (null === $link) {
            return null;
        }
        $attempt = $this->attempt($link->attempt_id);
        $round = self::round($attempt, $link->round ?? 1);
        $steps = self::steps($attempt, $round);
        $upTo = array_filter(
            $steps,
            static fn(ReproductionStep $s): bool => 'not_run' !== $s->verdict && (null === $link->step || $s->position <= $link->step),
        );

        return new Reproduction(
            $attempt->entry_id,
            $attempt->id,
            $attempt->number,
            $round->position,
            (string) $attempt->snapshot['key'],
            (string) $attempt->snapshot['title'],
            (string) $attempt->snapshot['preconditions'],
            \count($steps),
            Named::orNull($attempt->build),
            Named::orNull($attempt->configuration),
            self::environment($attempt),
            Person::from($attempt->tester),
            $link->step,
            array_values($upTo),
            $this->evidence($attempt, $round->position, $link->step, $link->evidence),
            null === $link->step ? null : $this->beside($attempt, $round, $link->step),
        );
    }

    private function attempt(string $id): Attempt
    {
        return Attempt::query()->with('tester', 'build', 'configuration', 'namedEnvironment', 'rounds')->findOrFail($id);
    }

    private static function round(Attempt $attempt, int $position): Round
    {
        $round = $attempt->rounds->firstWhere('position', $position) ?? $attempt->rounds->first();

        return $round instanceof Round ? $round : throw new \LogicException('An attempt has a round.');
    }

    /**
     * @return list<ReproductionStep> every step of a round
     */
    private static function steps(Attempt $attempt, Round $round): array
    {
        $results = DB::table('step_results')->where('round_id', $round->id)->get()->keyBy('position');
        [$values, $secrets] = RoundValues::of($round->data_row ?? [], false);
        $steps = [];
        foreach (AttemptText::steps(array_values((array) $attempt->snapshot['steps']), $values, $secrets, true) as $s) {
            $r = $results->get($s['position']);
            $steps[] = new ReproductionStep(
                $s['position'],
                $s['action'],
                $s['data'],
                $s['expected'],
                $r->verdict ?? 'not_run',
                $r->happened ?? '',
                $r->tries ?? 0,
                $r->tries_failed ?? 0,
            );
        }

        return $steps;
    }

    /**
     * @param  ?list<string>  $chosen by id; null: all of the step
     *
     * @return list<EvidenceItem> the newest first
     */
    private function evidence(Attempt $attempt, int $round, ?int $step, ?array $chosen = null): array
    {
        $gone = array_fill_keys(array_column($this->removals->of($attempt->id), 'subject'), true);
        $items = Evidence::query()
            ->with('file', 'marked')
            ->where('attempt_id', $attempt->id)
            ->whereNull('removed_at')
            ->when(null !== $chosen, static fn($q) => $q->whereKey($chosen))
            ->when(
                null === $chosen && null !== $step,
                static fn($q) => $q->where('step', $step)->whereRaw('coalesce(round, 1) = ?', [$round]),
            )
            ->orderByDesc('created_at')
            ->get();

        return array_values(
            $items->map(static fn(Evidence $e): EvidenceItem => EvidenceItem::from($e, isset($gone[$e->sha256 ?? ''])))->all(),
        );
    }

    private function beside(Attempt $failed, Round $round, int $step): ?PassedBeside
    {
        $action = $failed->snapshot['steps'][$step - 1]['action'] ?? null;
        if (!\is_string($action)) {
            return null;
        }
        $passed = $this->passed($failed, $action);
        $here = new WalkedRound(
            $failed->id,
            $round->position,
            $step,
            $failed->number,
            $failed->build?->position,
            self::micros($failed->finished_at ?? Carbon::now()),
            $failed->configuration_id,
            self::row($round->data_row ?? []),
        );
        $choice = PassBeside::of($here, $passed);
        if (null === $choice) {
            return null;
        }
        $other = $this->attempt($choice->round->attempt);
        $otherRound = self::round($other, $choice->round->round);

        return new PassedBeside(
            $other->entry_id,
            $other->id,
            $other->number,
            $otherRound->position,
            Person::from($other->tester),
            Named::orNull($other->build),
            ($other->finished_at ?? $other->started_at)->toIso8601ZuluString(),
            $choice->isBefore,
            $choice->sameConfiguration,
            $choice->sameRow,
            array_map(
                static fn(array $d): BesideDifference => new BesideDifference(...$d),
                $this->facts($other, $choice->round)->differences($this->facts($failed, $here), $step),
            ),
            $this->evidence($other, $otherRound->position, $choice->round->step),
        );
    }

    /**
     * Finished rounds of the case in which the step passed: it is the same where it says the same to do, wherever it stood then.
     *
     * @return list<WalkedRound>
     */
    private function passed(Attempt $failed, string $action): array
    {
        $rows = DB::table('step_results as s')
            ->join('rounds as r', 'r.id', '=', 's.round_id')
            ->join('attempts as a', 'a.id', '=', 'r.attempt_id')
            ->join('entries as e', 'e.id', '=', 'a.entry_id')
            ->leftJoin('builds as b', 'b.id', '=', 'a.build_id')
            ->where('e.case_id', $failed->snapshot['case_id'])
            ->where('a.project_id', $failed->project_id)
            ->where('a.state', 'finished')
            ->where('a.from_list', false)
            ->where('s.verdict', 'pass')
            ->whereRaw("a.snapshot->'steps'->(s.position - 1)->>'action' = ?", [$action])
            ->orderByDesc('a.finished_at')
            ->limit(self::MOST)
            ->get([
                'a.id',
                'a.number',
                'a.configuration_id',
                'a.finished_at',
                'b.position as build',
                'r.position as round',
                'r.data_row',
                's.position as step',
            ]);

        return array_values(
            $rows
                ->map(
                    static fn(\stdClass $r): WalkedRound => new WalkedRound(
                        $r->id,
                        $r->round,
                        $r->step,
                        $r->number,
                        $r->build,
                        self::micros(Carbon::parse($r->finished_at)),
                        $r->configuration_id,
                        self::row((array) json_decode((string) $r->data_row, true, 16, \JSON_THROW_ON_ERROR)),
                    ),
                )
                ->all(),
        );
    }

    private function facts(Attempt $attempt, WalkedRound $round): WalkFacts
    {
        return new WalkFacts(
            [
                'Build' => $attempt->build->name ?? '',
                'Configuration' => $attempt->configuration->name ?? '',
                'Environment' => self::environment($attempt),
                'Case' => 'version ' . (int) $attempt->snapshot['version'],
                'Tester' => $attempt->tester->name,
            ],
            $round->row,
            array_map(
                static fn(array $s): string => trim("{$s['action']}\n{$s['expected']}"),
                array_values((array) $attempt->snapshot['steps']),
            ),
        );
    }

    private static function environment(Attempt $attempt): string
    {
        return implode(', ', array_filter([$attempt->namedEnvironment->name ?? '', $attempt->environment]));
    }

    /**
     * @param  array<array-key, mixed>  $row as it is stored
     *
     * @return list<array{string, string}> by name, so that two rows compare
     */
    private static function row(array $row): array
    {
        $masked = RoundValues::masked($row);
        sort($masked);

        return $masked;
    }

    private static function micros(Carbon $at): int
    {
        return (int) $at->getPreciseTimestamp(6);
    }
}
