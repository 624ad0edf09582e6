<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\EntryChanges;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Queries\TesterLookup;

/**
 * Assigns entries to a person, who is told, or to nobody.
 */
final readonly class AssignEntriesTo implements EntryChange
{
    /**
     * @param  ?string  $assigneeId null: nobody
     * @param  string  $note       a word for whoever gets them
     */
    public function __construct(private ?string $assigneeId, private string $note = '') {}

    public function apply(EntryChangeContext $context): string
    {
        $to = $this->assigneeId;
        $find = static fn(): string => 'changes.assignee_id';
        $name = null === $to ? 'nobody' : TesterLookup::of($context->cycle->project_id, [$to], $find)[$to]->user->name;
        $note = trim($this->note);
        DB::table('entries')
            ->whereIn('id', $context->ids())
            ->update([
                'assignee_id' => $to,
                'handover_note' => $note,
                'handover_by_id' => '' === $note ? null : $context->user->id,
                'updated_at' => Carbon::now(),
            ]);
        if (null !== $to) {
            $new = $context->entries->filter(static fn(\stdClass $e): bool => $e->assignee_id !== $to)->count();
            $context->notify->assigned($context->cycle, $context->user, $to, $new, $note);
        }

        return \sprintf('Assigned %s to %s', EntryChangeContext::count($context->entries->count()), $name);
    }
}
