<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Defects\Data\Filing;
use LucidStep\App\Areas\Defects\Exceptions\DefectConflict;
use LucidStep\App\Areas\Defects\Tracker\TrackerQueue;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Keys\NextKey;
use LucidStep\App\Support\Secrets\MaskSecrets;
use LucidStep\Core\Defects\DefectField;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Defects\Draft;

/**
 * Files a defect, linked to what it came from. The one way in which one comes to be.
 */
final readonly class FileDefect
{
    public function __construct(
        private NextKey $nextKey,
        private LinkDefect $link,
        private WatchDefect $watch,
        private LinkSeen $linkSeen,
        private TellOfDefect $tell,
        private TrackerQueue $tracker,
        private PublishChange $announce,
    ) {}

    /**
     * @throws ValidationException by field
     * @throws DefectConflict      when one was filed from the same line of a session already
     */
    public function __invoke(Project $project, User $user, Filing $filing): Defect
    {
        $fields = new DefectFields($project);
        /** @var array<string, ?string> $said */
        $said = MaskSecrets::hide($filing->from, $filing->fields);
        $values = $fields->take($said);
        $from = $filing->from?->loadMissing('entry');
        $repro = null === $filing->seen ? null : $this->linkSeen->repro($filing->seen, $user);
        $on = $from ?? $repro?->session;
        if (null !== $repro && '' === ($values[DefectField::Steps->value] ?? '')) {
            $values[DefectField::Steps->value] = Draft::numbered(array_column($repro->steps, 'words'));
        }
        $number = $this->nextKey->reserve($project, 'defect');
        $now = Carbon::now();
        $defect = new Defect([
            'project_id' => $project->id,
            'number' => $number,
            'key' => "{$project->code}-D{$number}",
            ...DefectFields::EMPTY,
            'state' => DefectState::New,
            'reporter_id' => $user->id,
            'case_id' => $from->entry->case_id ?? ($filing->case->id ?? $repro?->case_id),
            'build_id' => $on?->build_id,
            'configuration_id' => $on?->configuration_id,
            'open_ms' => 0,
            'open_since' => $now,
            'version' => 1,
        ]);
        $fields->write($defect, $values);
        if (null !== $filing->id) {
            $defect->id = $filing->id;
        }
        $defect->save();
        DefectChange::query()->create([
            'defect_id' => $defect->id,
            'actor_id' => $user->id,
            'from_state' => null,
            'to_state' => DefectState::New,
            'created_at' => $now,
        ]);
        if (null !== $from) {
            ($this->link)($defect, $user, $from, $filing->round, $filing->step, $filing->evidence);
        }
        if (null !== $repro) {
            $this->linkSeen->link($defect, $user, $repro, $filing->captures);
        }
        if ([] !== $filing->watchers) {
            $this->watch->watch($defect, $filing->watchers);
        }
        $this->tracker->filed($defect, $user);
        if (null !== $defect->assignee_id) {
            $this->tell->given($defect, $user, $defect->assignee_id);
        }
        ($this->announce)($project->id, 'defect', $defect->id);

        return $defect;
    }
}
