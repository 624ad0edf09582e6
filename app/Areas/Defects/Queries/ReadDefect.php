<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Data\DefectChangeLine;
use LucidStep\App\Areas\Defects\Data\DefectDetail;
use LucidStep\App\Areas\Defects\Data\DefectName;
use LucidStep\App\Areas\Defects\Data\DefectOrigin;
use LucidStep\App\Areas\Defects\Data\SeenInSession;
use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\DefectLink;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\Core\Defects\DefectField;
use LucidStep\Core\Defects\DefectState;

/**
 * Reads a defect with everything about it.
 */
final readonly class ReadDefect
{
    public function __construct(private DefectAsText $text, private ReadFixProgress $progress, private DefectEvidence $evidence) {}

    /**
     * @param  bool  $mayFile whether whoever reads may file defects
     */
    public function __invoke(Defect $d, bool $mayFile): DefectDetail
    {
        $d->load(
            'reporter',
            'build',
            'configuration',
            'fixedBuild',
            'links.entry.case',
            'links.entry.cycle',
            // Without what was walked, which is long.
            'links.attempt:id,number,verdict,roll_up,build_id,configuration_id',
            'links.attempt.build',
            'links.attempt.configuration',
            'history.actor',
            'history.attempt:id,entry_id',
            'duplicateOf',
            'duplicates',
        );
        $evidence = $this->evidence->of($d);
        $files = DefectFiles::of([$d->id]);
        $verdicts = self::verdicts($d->id);
        $before = $d->asked_in ?? DefectState::New;
        $moves = $d->state->moves($mayFile, $before);
        $wasFixed = $d->history->contains('to_state', DefectState::Fixed);
        $names = $this->names($d);

        return new DefectDetail(
            DefectLines::of([$d->id])[0],
            $d->preconditions,
            $d->steps,
            $d->expected,
            $d->actual,
            $d->environment,
            $d->body,
            $d->version,
            Named::orNull($d->fixedBuild),
            array_column($moves, 'value'),
            array_column(
                array_filter($moves, static fn(DefectState $to): bool => $d->state->asksWordFor($to, $before, $wasFixed)),
                'value',
            ),
            array_values($d->links->map(fn(DefectLink $l): DefectOrigin => DefectOrigin::from($l, $verdicts[$l->id] ?? null))->all()),
            self::session($d->id),
            array_values($d->history->map(static fn(DefectChange $c): DefectChangeLine => DefectChangeLine::of($c, $names))->all()),
            array_values($evidence->map(static fn(Evidence $e): EvidenceItem => EvidenceItem::from($e))->all()),
            $d->asked_in?->value,
            null === $d->duplicateOf ? null : DefectName::of($d->duplicateOf),
            array_values($d->duplicates->map(DefectName::of(...))->all()),
            DefectTalk::with($d->id, $files),
            $files[DefectFiles::OWN] ?? [],
            ReadRelations::of($d->id),
            self::watchers($d->id),
            ReadTracker::ofDefect($d),
            null === $d->fixed_build_id ? null : ($this->progress)($d, DuplicateChains::of($d->project_id)),
            $this->text->markdown($d),
            $this->text->plain($d),
        );
    }

    /**
     * @return array<string, string> of everybody whom its history names as having had it, also of who left
     */
    private function names(Defect $d): array
    {
        $ids = $d->history
            ->flatMap(static fn(DefectChange $c): array => $c->fields[DefectField::Assignee->value] ?? [])
            ->filter()
            ->unique();

        return $ids->isEmpty()
            ? []
            : User::query()->whereKey($ids->all())->get()->mapWithKeys(static fn(User $u): array => [$u->id => $u->name])->all();
    }

    /**
     * @return array<string, string> what each linked step shows, by link
     */
    private static function verdicts(string $defect): array
    {
        return DB::table('defect_links as l')
            ->join(
                'rounds as r',
                static fn($on) => $on->on('r.attempt_id', '=', 'l.attempt_id')->whereRaw('r.position = coalesce(l.round, 1)'),
            )
            ->join('step_results as s', static fn($on) => $on->on('s.round_id', '=', 'r.id')->on('s.position', '=', 'l.step'))
            ->where('l.defect_id', $defect)
            ->pluck('s.verdict', 'l.id')
            ->map(strval(...))
            ->all();
    }

    private static function session(string $defect): ?SeenInSession
    {
        $seen = DB::table('repros as r')
            ->join('session_lines as l', 'l.id', '=', 'r.line_id')
            ->join('test_sessions as s', 's.id', '=', 'r.session_id')
            ->join('charters as c', 'c.id', '=', 's.charter_id')
            ->leftJoin('cases as k', 'k.id', '=', 'r.case_id')
            ->where('r.defect_id', $defect)
            ->first(['c.key', 'c.title', 's.number', 'l.id as line', 'l.at_ms', 'r.tries', 'r.shown', 'k.key as case']);

        return null === $seen
            ? null
            : new SeenInSession(
                $seen->key,
                $seen->title,
                $seen->number,
                $seen->line,
                $seen->at_ms,
                $seen->tries,
                $seen->shown,
                $seen->case,
            );
    }

    /**
     * @return list<Person>
     */
    private static function watchers(string $defect): array
    {
        return array_values(
            User::query()
                ->whereIn('id', DB::table('defect_watchers')->where('defect_id', $defect)->select('user_id'))
                ->orderBy('name')
                ->get()
                ->map(static fn(User $u): Person => Person::from($u))
                ->all(),
        );
    }

    /**
     * The attempt that a defect comes from.
     */
    public static function attempt(string $project, string $id): ?Attempt
    {
        return Attempt::query()->where('project_id', $project)->find($id);
    }
}
