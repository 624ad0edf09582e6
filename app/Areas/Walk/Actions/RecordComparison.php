<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Evidence\Queries\ComparePictures;
use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\CommandHandler;
use LucidStep\App\Areas\Walk\Commands\CompareCommand;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Support\Record\Journal;

/**
 * Keeps how far a picture differs from its reference, in the record of the attempt.
 *
 * @implements CommandHandler<CompareCommand>
 */
final readonly class RecordComparison implements CommandHandler
{
    public function __construct(private Journal $journal, private ComparePictures $compare) {}

    public function apply(AttemptCommand $command, CommandContext $context): void
    {
        $evidence =
            Evidence::query()->find($command->evidenceId) ??
            throw ValidationException::withMessages(['evidence' => 'This evidence is not there any more.']);
        $difference = $this->compare->difference($evidence, $command->reference);
        $found = ['reference' => $command->reference, 'compared' => $difference->compared, 'differing' => $difference->differing];
        $evidence->fill(['reference' => $command->reference, 'compared' => [...$found, 'share' => round($difference->share(), 6)]])->save();
        $hashes = array_values(array_filter([$evidence->sha256]));
        $this->journal->append(
            $context->attempt,
            $context->actor,
            'compared',
            ['evidence' => $evidence->id, ...$found],
            $context->stamp,
            $hashes,
        );
    }
}
