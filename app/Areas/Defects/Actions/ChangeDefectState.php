<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Defects\Data\DefectMove;
use LucidStep\App\Areas\Defects\Exceptions\DefectConflict;
use LucidStep\App\Areas\Defects\Queries\DuplicateChains;
use LucidStep\App\Areas\Defects\Tracker\TrackerQueue;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\Core\Defects\DefectRelation;
use LucidStep\Core\Defects\DefectState;

/**
 * Moves a defect to another state, with who and when.
 */
final readonly class ChangeDefectState
{
    public function __construct(private PublishChange $announce, private TellOfDefect $tell, private TrackerQueue $tracker) {}

    /**
     * @param  bool  $mayFile whether they may file defects: then they verify, close and reopen as well
     *
     * @throws AuthorizationException when their role does not move it there
     * @throws DefectConflict         when the state cannot follow the one it is in now, or it was moved meanwhile
     * @throws ValidationException    by field, when a build, the other defect or a word is missing
     */
    public function __invoke(Defect $defect, User $user, DefectMove $move, bool $mayFile): Defect
    {
        $defect = Defect::query()->lockForUpdate()->findOrFail($defect->id);
        [$from, $to, $note] = [$defect->state, $move->to, trim($move->note)];
        if (null !== $move->seen && $move->seen !== $from) {
            throw DefectConflict::movedMeanwhile($from);
        }
        $before = $defect->asked_in ?? DefectState::New;
        if (!\in_array($to, $from->moves($mayFile, $before), true)) {
            throw \in_array($to, $from->moves(true, $before), true) ? new AuthorizationException() : DefectConflict::noSuchMove($from, $to);
        }
        if ('' === $note && $from->asksWordFor($to, $before, $this->wasFixed($defect))) {
            throw ValidationException::withMessages(['note' => 'Say why in a few words.']);
        }
        if (DefectState::Closed === $to && !$move->anyway) {
            $this->checkChildren($defect);
        }
        $now = Carbon::now();
        $isAnswer = DefectState::NeedsInformation === $from && $to === $before;
        self::put($defect, $to, $now);
        if (DefectState::Fixed === $to && !$isAnswer) {
            $defect->fill(['fixed_build_id' => $this->build($defect, $move->build), 'fixed_at' => $now]);
        }
        if (DefectState::Duplicate === $to) {
            $defect->duplicate_of_id = $this->first($defect, $move->of);
        }
        DefectChange::query()->create([
            'defect_id' => $defect->id,
            'actor_id' => $user->id,
            'from_state' => $from,
            'to_state' => $to,
            'note' => $note,
            'attempt_id' => $move->attempt?->id,
            'created_at' => $now,
        ]);
        ++$defect->version;
        $defect->save();
        $this->tell->moved($defect, $user, $from, $note);
        $this->tracker->moved($defect, $user);
        ($this->announce)($defect->project_id, 'defect', $defect->id);

        return $defect;
    }

    /** What a move changes of a defect, beside its history. */
    public const MOVED = ['state', 'asked_in', 'duplicate_of_id', 'fixed_build_id', 'fixed_at', 'open_ms', 'open_since'];

    /**
     * Lets it stand where it stood before a move, nothing having happened since.
     *
     * @param  Defect  $defect locked
     * @param  array<string, mixed>  $before of {@see MOVED}
     */
    public function takeBack(Defect $defect, User $user, array $before): void
    {
        $from = $defect->state;
        $defect->setRawAttributes([...$defect->getAttributes(), ...array_intersect_key($before, array_flip(self::MOVED))]);
        ++$defect->version;
        $defect->save();
        DefectChange::query()->create([
            'defect_id' => $defect->id,
            'actor_id' => $user->id,
            'from_state' => $from,
            'to_state' => $defect->state,
            'note' => 'Taken back.',
            'created_at' => Carbon::now(),
        ]);
        $this->tell->moved($defect, $user, $from, 'taken back');
        $this->tracker->moved($defect, $user);
        ($this->announce)($defect->project_id, 'defect', $defect->id);
    }

    /**
     * Lets it stand as it stands in the tracker outside, whatever the table of moves says: who works there decided it. Nobody here did;
     * whoever reported it stands for it in the history.
     *
     * @param  Defect  $defect locked, with what is known of the tracker
     * @param  ?DefectState  $to null: where it is
     * @param  ?string  $assignee who has it from now on, by id; null: as it was
     */
    public function follow(Defect $defect, ?DefectState $to, ?string $assignee, string $note): void
    {
        [$from, $now] = [$defect->state, Carbon::now()];
        $fields = [];
        if (null !== $assignee && $assignee !== $defect->assignee_id) {
            $fields['assignee_id'] = [$defect->assignee_id, $assignee];
            $defect->assignee_id = $assignee;
        }
        if (null !== $to) {
            self::put($defect, $to, $now);
        }
        ++$defect->version;
        $defect->save();
        if (null === $to && [] === $fields) {
            return;
        }
        DefectChange::query()->create([
            'defect_id' => $defect->id,
            'actor_id' => $defect->reporter_id,
            'from_state' => $from,
            'to_state' => $defect->state,
            'note' => $note,
            'fields' => [] === $fields ? null : $fields,
            'outside' => true,
            'created_at' => $now,
        ]);
        $this->tell->followed($defect, $note);
    }

    /**
     * Lets it stand somewhere, with what follows from that alone: taken in work or open again, no build has a fix.
     */
    private static function put(Defect $defect, DefectState $to, Carbon $now): void
    {
        $defect->asked_in = DefectState::NeedsInformation === $to ? $defect->state : null;
        if (\in_array($to, [DefectState::InWork, DefectState::Reopened], true)) {
            $defect->fill(['fixed_build_id' => null, 'fixed_at' => null]);
        }
        if (DefectState::Duplicate !== $to) {
            $defect->duplicate_of_id = null;
        }
        $defect->setOpenTime($defect->openTime()->moved($to, $now->getTimestampMs()));
        $defect->state = $to;
    }

    private function checkChildren(Defect $defect): void
    {
        $open = Defect::query()
            ->whereIn(
                'id',
                DB::table('defect_relations')->where('to_id', $defect->id)->where('kind', DefectRelation::Under)->select('from_id'),
            )
            ->whereNotIn('state', DefectState::closed())
            ->orderBy('number')
            ->pluck('key')
            ->all();
        if ([] !== $open) {
            throw DefectConflict::openChildren(array_values(array_map(strval(...), $open)));
        }
    }

    private function wasFixed(Defect $defect): bool
    {
        return DefectChange::query()->where('defect_id', $defect->id)->where('to_state', DefectState::Fixed)->exists();
    }

    private function build(Defect $defect, ?string $build): string
    {
        if (null === $build || !Build::query()->where('project_id', $defect->project_id)->whereKey($build)->exists()) {
            throw ValidationException::withMessages(['build_id' => 'Choose the build that has the fix.']);
        }

        return $build;
    }

    /**
     * The first of the chain that it joins.
     */
    private function first(Defect $defect, ?Defect $of): string
    {
        if (null === $of || $of->project_id !== $defect->project_id) {
            throw ValidationException::withMessages(['duplicate_of' => 'Say which defect it is a duplicate of.']);
        }
        // Others of the project may join chains at the same time.
        Project::query()->lockForUpdate()->findOrFail($defect->project_id);
        $chains = DuplicateChains::of($defect->project_id);
        if (!$chains->mayPoint($defect->id, $of->id)) {
            throw DefectConflict::duplicateOfItself();
        }

        return $chains->first($of->id);
    }
}
