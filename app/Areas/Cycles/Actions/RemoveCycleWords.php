<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\App\Support\Record\Removals;
use LucidStep\App\Support\Record\TakeOut;
use LucidStep\Core\Planning\CycleLogKind;
use LucidStep\Core\Record\FreeText;

/**
 * Takes the words out with which something was done to a cycle, such as why it was closed or signed off, wherever else they
 * stand. The trace stays, and the chain of the cycle stays proven.
 */
final readonly class RemoveCycleWords
{
    public function __construct(private CycleLog $log, private CycleChain $chain) {}

    /**
     * @param  int  $line of the cycle's log
     *
     * @throws AlreadyDone when there are none, or none any more
     */
    public function __invoke(Cycle $cycle, int $line, User $by, string $reason): void
    {
        $cycle = Cycle::query()->lockForUpdate()->findOrFail($cycle->id);
        $of = DB::table('cycle_log')->where('cycle_id', $cycle->id)->where('id', $line)->first() ?? throw new ModelNotFoundException();
        $text = (string) $of->reason;
        if ('' === $text || FreeText::REMOVED === $text) {
            throw AlreadyDone::removed();
        }
        $same = DB::table('cycle_log')->where('cycle_id', $cycle->id)->where('reason', $text)->pluck('actor_id', 'id');
        foreach ($same->keys() as $id) {
            Removals::add($cycle->project_id, null, 'cycle_log', (string) $id, $reason, $by);
        }
        DB::table('cycle_log')
            ->whereIn('id', $same->keys())
            ->update(['reason' => FreeText::REMOVED]);
        DB::table('sign_offs')
            ->where('cycle_id', $cycle->id)
            ->where('note', $text)
            ->update(['note' => FreeText::REMOVED]);
        $this->chain->takeOut($cycle, [$text], $by, $reason);
        TakeOut::told($cycle->project_id, [$text]);
        $people = array_values(array_unique(array_filter($same->all(), is_string(...))));
        TakeOut::storedAnswers($people, Carbon::createFromTimestamp(0), [$text]);
        ($this->log)($cycle, $by, CycleLogKind::WordsRemoved, "Took the words out of “{$of->text}”", $reason);
    }
}
