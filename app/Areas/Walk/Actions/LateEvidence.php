<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;

/**
 * Evidence that arrived too late, once a lead accepts it. That of a sealed attempt is never changed: what was done with it
 * is done with a copy, in the attempt that takes in what came late. Only what was hidden goes out of the sealed one too,
 * with its trace.
 */
final readonly class LateEvidence
{
    public function __construct(private RemoveContent $removal)
    {
    }

    /**
     * @param  array<string, mixed>  $p what was kept of the act
     */
    public function add(Attempt $attempt, User $actor, array $p, DeviceStamp $stamp): void
    {
        $file = isset($p['sha256']) ? StoredFile::query()->find($p['sha256']) : null;
        $link = trim((string) ($p['link'] ?? ''));
        if ((null === $file && '' === $link) || null !== Evidence::query()->find($p['id'])) {
            return;
        }
        Evidence::query()->create([
            'id' => $p['id'], 'project_id' => $attempt->project_id, 'attempt_id' => $attempt->id, 'round' => self::number($p['round'] ?? null), 'step' => self::number($p['step'] ?? null), 'sha256' => $file?->sha256, 'link' => null === $file ? $link : null,
            'name' => mb_substr(trim((string) ($p['name'] ?? '')), 0, 200) ?: 'evidence', 'caption' => trim((string) ($p['caption'] ?? '')), 'source' => $p['source'] ?? 'file', 'added_by_id' => $actor->id, 'device_time' => $stamp->time, 'created_at' => Carbon::now(),
        ]);
    }

    /**
     * @param  array<string, mixed>  $p what was kept of the act: `evidence` and what it `becomes`
     */
    public function change(Attempt $attempt, User $actor, string $kind, array $p): void
    {
        $evidence = Evidence::query()->find($p['evidence'] ?? null);
        $becomes = (array) ($p['becomes'] ?? []);
        if (null === $evidence || [] === $becomes) {
            return;
        }
        $shown = array_filter([$evidence->sha256, $evidence->marked_sha256]);
        if ($evidence->attempt_id === $attempt->id) {
            $evidence->fill($becomes)->save();
        } elseif ('evidence_removed' !== $kind) {
            $this->copy($evidence, $attempt)->fill($becomes)->save();
        }
        if ('evidence_redacted' === $kind) {
            foreach ($shown as $sha256) {
                $this->removal->file($evidence->attempt_id, $attempt->project_id, $sha256, $actor, 'Redacted by whoever captured it');
            }
        }
    }

    /**
     * The same picture in the attempt that takes in what came late: what was done with it before stays done.
     */
    private function copy(Evidence $evidence, Attempt $attempt): Evidence
    {
        return Evidence::query()->where('attempt_id', $attempt->id)->where('copy_of_id', $evidence->id)->first()
            ?? $evidence->replicate()->fill(['id' => (string) Str::uuid7(), 'attempt_id' => $attempt->id, 'copy_of_id' => $evidence->id, 'created_at' => $evidence->created_at]);
    }

    /**
     * Forms send numbers as text.
     */
    private static function number(mixed $value): ?int
    {
        return null === $value ? null : (int) $value;
    }
}
