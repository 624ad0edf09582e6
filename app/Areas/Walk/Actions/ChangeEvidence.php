<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Evidence\Actions\StoreFile;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\Journal;
use LucidStep\App\Support\Secrets\MaskSecrets;

/**
 * Captions a piece of evidence, moves it to another step, draws on it, hides parts of it, or takes it off, until the
 * attempt is finished. The record keeps all of it.
 */
final readonly class ChangeEvidence
{
    public function __construct(private RecordInAttempt $act, private Journal $journal, private StoreFile $store, private RemoveContent $removal)
    {
    }

    /**
     * @return ?LateCommand the act, when it arrived too late
     */
    public function caption(Evidence $evidence, User $user, string $caption, DeviceStamp $stamp): ?LateCommand
    {
        $caption = (string) MaskSecrets::hide($evidence->loadMissing('attempt')->attempt, ['caption' => $caption])['caption'];

        return $this->change($evidence, $user, 'evidence_captioned', ['evidence' => $evidence->id, 'from' => $evidence->caption, 'to' => trim($caption)], ['caption' => trim($caption)], $stamp);
    }

    /**
     * @return ?LateCommand the act, when it arrived too late
     */
    public function remove(Evidence $evidence, User $user, DeviceStamp $stamp): ?LateCommand
    {
        return $this->change($evidence, $user, 'evidence_removed', ['evidence' => $evidence->id], ['removed_at' => Carbon::now()], $stamp);
    }

    /**
     * @return ?LateCommand the act, when it arrived too late
     */
    public function move(Evidence $evidence, User $user, ?int $round, ?int $step, DeviceStamp $stamp): ?LateCommand
    {
        return $this->change($evidence, $user, 'evidence_moved', ['evidence' => $evidence->id, 'round' => $round, 'step' => $step], ['round' => $round, 'step' => $step], $stamp);
    }

    /**
     * What was drawn on a picture: it stays apart and can be changed; the picture with it on is kept beside.
     *
     * @param  array<string, mixed>  $markup the shapes; none takes them off
     * @param  ?UploadedFile  $drawn  the picture with them
     *
     * @return ?LateCommand the act, when it arrived too late
     */
    public function markUp(Evidence $evidence, User $user, array $markup, ?UploadedFile $drawn, DeviceStamp $stamp): ?LateCommand
    {
        $file = null === $drawn ? null : ($this->store)($drawn);

        return $this->change($evidence, $user, 'evidence_marked', ['evidence' => $evidence->id, 'shapes' => \count($markup['shapes'] ?? []), 'markup_sha256' => hash('sha256', (string) json_encode($markup, \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES))], ['markup' => null === $file ? null : $markup, 'marked_sha256' => $file?->sha256], $stamp, null === $file ? [] : [$file->sha256]);
    }

    /**
     * Puts a picture in the place of one that showed too much: the old content goes, and leaves its trace.
     *
     * @return ?LateCommand the act, when it arrived too late
     */
    public function redact(Evidence $evidence, User $user, UploadedFile $hidden, DeviceStamp $stamp): ?LateCommand
    {
        $file = ($this->store)($hidden);
        $old = $evidence->sha256;
        $marked = $evidence->marked_sha256;
        $late = $this->change($evidence, $user, 'evidence_redacted', ['evidence' => $evidence->id, 'from' => $old], ['sha256' => $file->sha256, 'marked_sha256' => null, 'markup' => null], $stamp, [$file->sha256]);
        if (null === $late) {
            foreach (array_filter([$old, $marked]) as $gone) {
                $this->removal->file($evidence->attempt_id, $evidence->project_id, $gone, $user, 'Redacted by whoever captured it');
            }
        }

        return $late;
    }

    /**
     * @param  array<string, mixed>  $payload
     * @param  array<string, mixed>  $fields
     * @param  ?list<string>  $hashes  of the files it is about; those of the evidence by default
     */
    private function change(Evidence $evidence, User $user, string $kind, array $payload, array $fields, DeviceStamp $stamp, ?array $hashes = null): ?LateCommand
    {
        $attempt = Attempt::query()->findOrFail($evidence->attempt_id);

        // What it becomes is kept with an act that comes too late: a lead may still accept it.
        return ($this->act)($attempt, $user, $kind, [...$payload, 'becomes' => $fields], $stamp, function (Attempt $attempt) use ($evidence, $user, $kind, $payload, $fields, $stamp, $hashes): void {
            $evidence->fill($fields)->save();
            $this->journal->append($attempt, $user, $kind, $payload, $stamp, $hashes ?? array_values(array_filter([$evidence->sha256])));
        });
    }
}
