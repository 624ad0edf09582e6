<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Http\UploadedFile;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Evidence\Actions\CheckStorage;
use LucidStep\App\Areas\Evidence\Actions\StoreFile;
use LucidStep\App\Areas\Walk\Commands\AddEvidenceCommand;
use LucidStep\App\Areas\Walk\Commands\EvidenceCommand;
use LucidStep\App\Areas\Walk\Commands\MarkUpCommand;
use LucidStep\App\Areas\Walk\Commands\RedactCommand;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Secrets\MaskedInput;
use LucidStep\App\Support\Secrets\MaskSecrets;

/**
 * Stores what a device sends of evidence, a file or a drawing, and records what it is for. The file is kept in any case,
 * also while the command waits for a lead.
 */
final readonly class UploadEvidence
{
    public function __construct(private RecordInAttempt $record, private CheckStorage $check, private StoreFile $store) {}

    /**
     * @param  ?UploadedFile  $upload  none for a link
     * @param  AddEvidenceCommand  $command without its file
     *
     *
     * @throws ValidationException when the file is not taken, or the project's storage is full
     * @return array{?Evidence, ?LateCommand} the evidence, or the command when it arrived too late
     */
    public function add(Attempt $attempt, User $user, ?UploadedFile $upload, AddEvidenceCommand $command, DeviceStamp $stamp): array
    {
        ($this->check)($attempt->project_id, (int) $upload?->getSize());
        // Whoever walks may have values that the tables do not hold any more.
        $mask = null === $upload ? null : MaskSecrets::of($attempt);
        $upload = null === $upload || null === $mask ? $upload : MaskedInput::file($upload, $mask);
        $file = null === $upload ? null : ($this->store)($upload);
        $name = '' !== $command->name ? $command->name : trim($upload?->getClientOriginalName() ?? $command->link);
        $late = ($this->record)(
            $attempt,
            $user,
            new AddEvidenceCommand(
                $command->id,
                $command->round,
                $command->step,
                $file?->sha256,
                null === $file ? $command->link : '',
                mb_substr($name, 0, 200),
                $command->caption,
                $command->source,
            ),
            $stamp,
        );

        return [null === $late ? Evidence::query()->with('file')->findOrFail($command->id) : null, $late];
    }

    /**
     * @param  array<string, mixed>  $markup the shapes
     * @param  ?UploadedFile  $drawn  the picture with them on it; none takes them off
     *
     * @return ?LateCommand the command, when it arrived too late
     */
    public function markUp(Evidence $evidence, User $user, array $markup, ?UploadedFile $drawn, DeviceStamp $stamp): ?LateCommand
    {
        $sha256 = null === $drawn ? null : ($this->store)($drawn)->sha256;

        return $this->change($evidence, $user, new MarkUpCommand($evidence->id, $markup, $sha256), $stamp);
    }

    /**
     * @return ?LateCommand the command, when it arrived too late
     */
    public function redact(Evidence $evidence, User $user, UploadedFile $hidden, DeviceStamp $stamp): ?LateCommand
    {
        return $this->change($evidence, $user, new RedactCommand($evidence->id, ($this->store)($hidden)->sha256), $stamp);
    }

    /**
     * @return ?LateCommand the command, when it arrived too late
     */
    public function change(Evidence $evidence, User $user, EvidenceCommand $command, DeviceStamp $stamp): ?LateCommand
    {
        return ($this->record)($evidence->loadMissing('attempt')->attempt, $user, $command, $stamp);
    }
}
