<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Tracker;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Defects\Jobs\SendTrackerCalls;
use LucidStep\App\Areas\Defects\Queries\DefectAsText;
use LucidStep\App\Areas\Defects\Queries\DefectEvidence;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectFile;
use LucidStep\App\Models\TrackerCall;
use LucidStep\App\Models\TrackerConnection;
use LucidStep\App\Models\User;
use LucidStep\Core\Defects\Tracker\CallState;
use LucidStep\Core\Record\FreeText;

/**
 * What is to be told to the tracker outside: written down in the transaction of the act itself, sent afterwards, in order.
 */
final readonly class TrackerQueue
{
    public function __construct(private DefectAsText $text, private DefectEvidence $evidence) {}

    /**
     * A defect was filed here: it goes there, where every one does.
     */
    public function filed(Defect $defect, User $by): void
    {
        if (self::connection($defect->project_id)->sends_each ?? false) {
            $this->file($defect, $by);
        }
    }

    /**
     * Files a defect there, with what was captured; once.
     *
     * @return bool whether it was not there, nor on its way
     */
    public function file(Defect $defect, User $by): bool
    {
        if (null === self::connection($defect->project_id) || $this->isThere($defect)) {
            return false;
        }
        $this->add($defect, $by, 'file', [
            'title' => "{$defect->key} {$defect->title}",
            'body' => $this->text->markdown($defect),
            'severity' => $defect->severity,
        ]);
        foreach ($this->evidence->of($defect) as $evidence) {
            $this->add($defect, $by, 'attach', ['evidence' => $evidence->id]);
        }
        foreach (DefectFile::query()->where('defect_id', $defect->id)->whereNull('comment_id')->whereNull('removed_at')->get() as $file) {
            $this->add($defect, $by, 'attach', ['file' => $file->id]);
        }

        return true;
    }

    public function said(Defect $defect, User $by, string $text): void
    {
        if ($this->goesAlong($defect)) {
            $this->add($defect, $by, 'comment', ['text' => "{$by->name}: {$text}"]);
        }
    }

    /**
     * A file was added to it by hand.
     */
    public function attached(Defect $defect, User $by, DefectFile $file): void
    {
        if ($this->goesAlong($defect)) {
            $this->add($defect, $by, 'attach', ['file' => $file->id]);
        }
    }

    public function moved(Defect $defect, User $by): void
    {
        if ($this->goesAlong($defect)) {
            $this->add($defect, $by, 'move', ['state' => $defect->state->value]);
        }
    }

    /**
     * Words that were taken out here do not go there any more; what went already is not ours to take back.
     */
    public function takeOut(Defect $defect, string $text): void
    {
        $calls = TrackerCall::query()->where('defect_id', $defect->id)->where('act', 'comment')->lockForUpdate()->get();
        foreach ($calls as $call) {
            if ('' !== $text && str_contains((string) ($call->payload['text'] ?? ''), $text)) {
                $call->payload = ['text' => FreeText::REMOVED];
                $call->state = $call->state->isDone() ? $call->state : CallState::LeftOut;
                $call->save();
            }
        }
    }

    public static function connection(string $project): ?TrackerConnection
    {
        return TrackerConnection::query()->where('project_id', $project)->where('enabled', true)->first();
    }

    private function goesAlong(Defect $defect): bool
    {
        return null !== self::connection($defect->project_id) && $this->isThere($defect);
    }

    /**
     * Whether the tracker has it, or its filing is on the way.
     */
    private function isThere(Defect $defect): bool
    {
        return null !== $defect->outside_key ||
            TrackerCall::query()
                ->where('defect_id', $defect->id)
                ->where('act', 'file')
                ->whereIn('state', [CallState::Waiting, CallState::Refused])
                ->exists();
    }

    /**
     * @param  'file'|'comment'|'attach'|'move'  $act
     * @param  array<string, string>  $payload
     */
    private function add(Defect $defect, User $by, string $act, array $payload): void
    {
        TrackerCall::query()->create([
            'project_id' => $defect->project_id,
            'defect_id' => $defect->id,
            'by_id' => $by->id,
            'act' => $act,
            'payload' => $payload,
            'state' => CallState::Waiting,
            'tries' => 0,
            'next_at' => Carbon::now(),
            'created_at' => Carbon::now(),
        ]);
        SendTrackerCalls::dispatch($defect->project_id)->afterCommit();
    }
}
