<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Data\PlanActResult;
use LucidStep\App\Areas\Cycles\EntryChanges\EntryChange;
use LucidStep\App\Areas\Cycles\EntryChanges\EntryChangeContext;
use LucidStep\App\Areas\Cycles\EntryChanges\EntryOrder;
use LucidStep\App\Areas\Cycles\EntryChanges\SortByDependencies;
use LucidStep\App\Areas\Cycles\Queries\EntryStates;
use LucidStep\App\Areas\Notices\Actions\NotifyPeople;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\PlanAct;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Planning\CycleLogKind;

/**
 * One change of many entries of a cycle: assign, order, conditions, windows, remove. Each is undone as one; what was changed
 * again since stays and is named.
 */
final readonly class BulkEditEntries
{
    public function __construct(
        private CycleLog $log,
        private EntryStates $states,
        private EntryOrder $order,
        private NotifyPeople $notify,
    ) {}

    /**
     * @param  list<string>  $ids
     * @param  string  $note kept in the log
     *
     * @throws Conflict            when the cycle is closed
     * @throws ValidationException by field
     */
    public function __invoke(Cycle $cycle, User $user, EntryChange $change, array $ids, string $note = ''): PlanActResult
    {
        return Transactions::run(fn(): PlanActResult => $this->change(OpenCycle::lock($cycle), $user, $change, $ids, $note));
    }

    /**
     * @param  list<string>  $ids
     */
    private function change(Cycle $cycle, User $user, EntryChange $change, array $ids, string $note): PlanActResult
    {
        $entries = $this->entries($cycle, $change instanceof SortByDependencies ? null : $ids);
        $context = new EntryChangeContext($cycle, $user, $entries, $this->order, $this->notify);
        $before = $this->states->of($cycle, $context->ids());
        $stops = BlockDependents::stops($cycle->id);
        $title = $change->apply($context);
        $after = $this->states->of($cycle, $context->ids());
        $refused = $this->states->refused($context->refused);
        if ([] !== $context->removed) {
            $before = [...$before, 'removed' => $context->removed, 'their_conditions' => $context->removedConditions];
        }
        if ($before === $after) {
            return new PlanActResult(null, 'Nothing changed', 0, $refused, []);
        }
        $done = PlanAct::query()->create([
            'project_id' => $cycle->project_id,
            'cycle_id' => $cycle->id,
            'actor_id' => $user->id,
            'title' => $title,
            'before' => $before,
            'after' => $after,
            'created_at' => Carbon::now(),
        ]);
        BlockDependents::lift($cycle->id);
        $letGo = array_values(array_udiff($stops, BlockDependents::stops($cycle->id), static fn(array $a, array $b): int => $a <=> $b));
        if ([] !== $letGo) {
            $done->update(['before' => [...$before, 'stops' => $letGo]]);
        }
        ($this->log)($cycle, $user, CycleLogKind::EntriesChanged, $title, trim($note), $done->id);

        return new PlanActResult($done->id, $title, $entries->count() - \count($refused), $refused, $context->ids());
    }

    /**
     * @param  ?list<string>  $ids null: all of the cycle
     *
     * @return Collection<string, \stdClass> rows by id, in the order of the cycle
     */
    private function entries(Cycle $cycle, ?array $ids): Collection
    {
        $rows = DB::table('entries')->where('cycle_id', $cycle->id)->orderBy('position');
        $entries = (null === $ids ? $rows : $rows->whereIn('id', $ids))->get()->keyBy('id');
        if ($entries->isEmpty()) {
            throw ValidationException::withMessages(['ids' => 'None of these entries is in the cycle any more.']);
        }

        return $entries;
    }
}
