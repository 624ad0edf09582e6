<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Walk;

use Illuminate\Support\Carbon;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\LateAct;
use LucidStep\App\Models\User;

/**
 * Captions a piece of evidence, or takes it off the step, until the attempt is finished. The record keeps both.
 */
final readonly class ChangeEvidence
{
    public function __construct(private Act $act, private Journal $journal)
    {
    }

    /**
     * @return ?LateAct the act, when it arrived too late
     */
    public function caption(Evidence $evidence, User $user, string $caption, DeviceStamp $stamp): ?LateAct
    {
        $caption = (string) Secrets::hide($evidence->loadMissing('attempt')->attempt, ['caption' => $caption])['caption'];

        return $this->change($evidence, $user, 'evidence_captioned', ['evidence' => $evidence->id, 'from' => $evidence->caption, 'to' => trim($caption)], ['caption' => trim($caption)], $stamp);
    }

    /**
     * @return ?LateAct the act, when it arrived too late
     */
    public function remove(Evidence $evidence, User $user, DeviceStamp $stamp): ?LateAct
    {
        return $this->change($evidence, $user, 'evidence_removed', ['evidence' => $evidence->id], ['removed_at' => Carbon::now()], $stamp);
    }

    /**
     * @param  array<string, mixed>  $payload
     * @param  array<string, mixed>  $fields
     */
    private function change(Evidence $evidence, User $user, string $kind, array $payload, array $fields, DeviceStamp $stamp): ?LateAct
    {
        $attempt = Attempt::query()->findOrFail($evidence->attempt_id);

        return ($this->act)($attempt, $user, $kind, $payload, $stamp, function (Attempt $attempt) use ($evidence, $user, $kind, $payload, $fields, $stamp): void {
            $evidence->fill($fields)->save();
            $this->journal->append($attempt, $user, $kind, $payload, $stamp, [$evidence->sha256]);
        });
    }
}
