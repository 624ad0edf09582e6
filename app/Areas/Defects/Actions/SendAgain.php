<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Defects\Jobs\SendTrackerCalls;
use LucidStep\App\Models\TrackerCall;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\Core\Defects\Tracker\CallState;

/**
 * Sends what the tracker refused once more, or what waits at once; or leaves it out, so that what comes after it may go.
 */
final readonly class SendAgain
{
    public function __construct(private PublishChange $announce) {}

    /**
     * @throws AlreadyDone when it was sent or left out meanwhile
     */
    public function __invoke(TrackerCall $call): TrackerCall
    {
        return $this->set($call, ['state' => CallState::Waiting, 'next_at' => Carbon::now()]);
    }

    /**
     * @throws AlreadyDone when it was sent or left out meanwhile
     */
    public function leaveOut(TrackerCall $call): TrackerCall
    {
        return $this->set($call, ['state' => CallState::LeftOut, 'done_at' => Carbon::now()]);
    }

    /**
     * @param  array<string, mixed>  $values
     */
    private function set(TrackerCall $call, array $values): TrackerCall
    {
        $call = TrackerCall::query()->with('defect')->lockForUpdate()->findOrFail($call->id);
        if ($call->state->isDone()) {
            throw AlreadyDone::sent();
        }
        $call->update($values);
        SendTrackerCalls::dispatch($call->project_id)->afterCommit();
        ($this->announce)($call->project_id, 'defect', $call->defect_id);

        return $call;
    }
}
