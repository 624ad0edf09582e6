<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Walk\Commands\AddEvidenceCommand;
use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\CommandHandler;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Record\Journal;

/**
 * Attaches a stored file or a link to a step or to the attempt.
 *
 * @implements CommandHandler<AddEvidenceCommand>
 */
final readonly class AddEvidence implements CommandHandler
{
    public function __construct(private Journal $journal) {}

    public function apply(AttemptCommand $command, CommandContext $context): void
    {
        $attempt = $context->attempt;
        $file = null === $command->sha256 ? null : StoredFile::query()->findOrFail($command->sha256);
        if (null === $file && '' === $command->link) {
            throw ValidationException::withMessages(['file' => 'There is neither a file nor a link.']);
        }
        if (Evidence::query()->whereKey($command->id)->exists()) {
            throw ValidationException::withMessages(['id' => 'This id belongs to another piece of evidence.']);
        }
        $evidence = Evidence::query()->create([
            'id' => $command->id,
            'project_id' => $attempt->project_id,
            'attempt_id' => $attempt->id,
            'round' => $command->round,
            'step' => $command->step,
            'sha256' => $file?->sha256,
            'link' => null === $file ? $command->link : null,
            'name' => mb_substr($command->name, 0, 200) ?: 'evidence',
            'caption' => $command->caption,
            'source' => $command->source,
            'added_by_id' => $context->actor->id,
            'device_time' => $context->stamp->time,
            'created_at' => Carbon::now(),
        ]);
        $content = null === $file ? ['link' => $command->link] : ['bytes' => $file->bytes, 'media_type' => $file->media_type];
        $this->journal->append(
            $attempt,
            $context->actor,
            'evidence_added',
            [
                'evidence' => $evidence->id,
                'name' => $evidence->name,
                'caption' => $evidence->caption,
                ...$content,
                'round' => $evidence->round,
                'step' => $evidence->step,
                'source' => $evidence->source,
            ],
            $context->stamp,
            null === $file ? [] : [$file->sha256],
        );
    }
}
