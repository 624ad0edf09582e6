<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Evidence\Actions\StoreFile;
use LucidStep\App\Areas\Evidence\Queries\StorageUse;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\Journal;
use LucidStep\App\Support\Secrets\MaskSecrets;

/**
 * Attaches a file to a step or to the attempt.
 */
final readonly class AddEvidence
{
    public function __construct(private RecordInAttempt $act, private Journal $journal, private StoreFile $store)
    {
    }

    /**
     * @param  ?UploadedFile  $upload none for a link
     * @param  array{id: string, name?: ?string, caption?: ?string, round?: ?int, step?: ?int, source?: ?string, link?: ?string}  $fields
     *
     * @return array{?Evidence, ?LateCommand} the evidence, or the act when it arrived too late; the file is kept in both cases
     *
     * @throws ValidationException when the file is not taken, or the project's storage is full
     */
    public function __invoke(Attempt $attempt, User $user, ?UploadedFile $upload, array $fields, DeviceStamp $stamp): array
    {
        $this->limit($attempt->project_id, (int) $upload?->getSize());
        $file = null === $upload ? null : ($this->store)($upload);
        $link = null === $file ? trim((string) ($fields['link'] ?? '')) : null;
        $fields = [...$fields, ...MaskSecrets::hide($attempt, array_intersect_key($fields, array_flip(['name', 'caption', 'link'])))];
        $name = mb_substr(trim((string) ($fields['name'] ?? $upload?->getClientOriginalName() ?? $link)), 0, 200);
        $evidence = null;
        $late = ($this->act)($attempt, $user, 'evidence_added', [...$fields, 'sha256' => $file?->sha256], $stamp, function (Attempt $attempt) use ($user, $file, $fields, $name, $link, $stamp, &$evidence): void {
            $evidence = Evidence::query()->create([
                'id' => $fields['id'],
                'project_id' => $attempt->project_id,
                'attempt_id' => $attempt->id,
                'round' => isset($fields['round']) ? (int) $fields['round'] : null,
                'step' => isset($fields['step']) ? (int) $fields['step'] : null,
                'sha256' => $file?->sha256,
                'link' => $link,
                'name' => '' === $name ? 'evidence' : $name,
                'caption' => trim((string) ($fields['caption'] ?? '')),
                'source' => $fields['source'] ?? 'file',
                'added_by_id' => $user->id,
                'device_time' => $stamp->time,
                'created_at' => Carbon::now(),
            ]);
            $this->journal->append($attempt, $user, 'evidence_added', [
                'evidence' => $evidence->id, 'name' => $evidence->name, ...(null === $file ? ['link' => $link] : ['bytes' => $file->bytes, 'media_type' => $file->media_type]),
                'round' => $evidence->round, 'step' => $evidence->step, 'source' => $evidence->source,
            ], $stamp, null === $file ? [] : [$file->sha256]);
        });
        $evidence?->setRelation('file', $file);

        return [$evidence, $late];
    }

    /**
     * @throws ValidationException when the project may not keep so much more
     */
    private function limit(string $project, int $bytes): void
    {
        $limit = DB::table('projects')->where('id', $project)->value('storage_limit_mb');
        if (null !== $limit && 0 < $bytes && StorageUse::bytes($project) + $bytes > $limit * 1_048_576) {
            throw ValidationException::withMessages(['file' => "The project keeps at most {$limit} MB of evidence and has no room for this. It stays on your device; ask an admin for room, then send it again."]);
        }
    }
}
