<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Cycles\Actions\CycleLog;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Record\Removals;
use LucidStep\App\Support\Record\TakeOut;
use LucidStep\Core\Planning\CycleLogKind;
use LucidStep\Core\Record\FreeText;

/**
 * Takes the words out with which an entry was handed over or to a lead for a look, wherever else they stand. The trace stays.
 */
final readonly class RemoveEntryWords
{
    public function __construct(private PublishChange $publish, private CycleLog $log) {}

    /**
     * @throws AlreadyDone when there are none
     */
    public function __invoke(Entry $entry, User $by, string $reason): void
    {
        Cycle::query()->lockForUpdate()->findOrFail($entry->cycle_id);
        $entry = Entry::query()->with('case', 'cycle')->lockForUpdate()->findOrFail($entry->id);
        $texts = array_values(
            array_filter([$entry->handover_note, $entry->look_note], static fn(string $t): bool => '' !== $t && FreeText::REMOVED !== $t),
        );
        if ([] === $texts) {
            throw AlreadyDone::removed();
        }
        TakeOut::of($entry->project_id, $entry->case_id, $texts);
        TakeOut::storedAnswers(
            array_values(array_filter([$entry->handover_by_id, $entry->look_by_id])),
            Carbon::createFromTimestamp(0),
            $texts,
        );
        ($this->log)(
            $entry->cycle,
            $by,
            CycleLogKind::EntriesChanged,
            "Took out the words with which {$entry->case->key} was handed on",
            $reason,
        );
        Removals::add($entry->project_id, null, 'entry', $entry->id, $reason, $by);
        ($this->publish)($entry->project_id, 'entry', $entry->id, $entry->cycle_id);
    }
}
