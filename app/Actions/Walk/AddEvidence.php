<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Walk;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\LateAct;
use LucidStep\App\Models\User;

/**
 * Attaches a file to a step or to the attempt.
 */
final readonly class AddEvidence
{
    public function __construct(private Act $act, private Journal $journal, private StoreFile $store)
    {
    }

    /**
     * @param  array{id: string, name?: ?string, caption?: ?string, round?: ?int, step?: ?int, source?: ?string}  $fields
     *
     * @return array{?Evidence, ?LateAct} the evidence, or the act when it arrived too late; the file is kept in both cases
     */
    public function __invoke(Attempt $attempt, User $user, UploadedFile $upload, array $fields, DeviceStamp $stamp): array
    {
        $file = ($this->store)($upload);
        $fields = [...$fields, ...Secrets::hide($attempt, array_intersect_key($fields, array_flip(['name', 'caption'])))];
        $name = mb_substr(trim((string) ($fields['name'] ?? $upload->getClientOriginalName())), 0, 200);
        $evidence = null;
        $late = ($this->act)($attempt, $user, 'evidence_added', [...$fields, 'sha256' => $file->sha256], $stamp, function (Attempt $attempt) use ($user, $file, $fields, $name, $stamp, &$evidence): void {
            $evidence = Evidence::query()->create([
                'id' => $fields['id'],
                'project_id' => $attempt->project_id,
                'attempt_id' => $attempt->id,
                'round' => isset($fields['round']) ? (int) $fields['round'] : null,
                'step' => isset($fields['step']) ? (int) $fields['step'] : null,
                'sha256' => $file->sha256,
                'name' => '' === $name ? 'evidence' : $name,
                'caption' => trim((string) ($fields['caption'] ?? '')),
                'source' => $fields['source'] ?? 'file',
                'added_by_id' => $user->id,
                'device_time' => $stamp->time,
                'created_at' => Carbon::now(),
            ]);
            $this->journal->append($attempt, $user, 'evidence_added', [
                'evidence' => $evidence->id, 'name' => $evidence->name, 'bytes' => $file->bytes, 'media_type' => $file->media_type,
                'round' => $evidence->round, 'step' => $evidence->step, 'source' => $evidence->source,
            ], $stamp, [$file->sha256]);
        });
        $evidence?->setRelation('file', $file);

        return [$evidence, $late];
    }
}
