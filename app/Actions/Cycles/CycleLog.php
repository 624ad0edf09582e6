<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Cycles;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Actions\Walk\Announce;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\User;

/**
 * Writes down what was done to a cycle, and that it is another one now.
 */
final readonly class CycleLog
{
    /** What is written when somebody asks for a review; the queue finds who by it. */
    public const ASKED = 'Asked for a review';

    public function __construct(private Announce $announce)
    {
    }

    /**
     * @param  ?User  $actor null: the application itself
     * @param  ?string  $act   the act it can be undone by
     */
    public function __invoke(Cycle $cycle, ?User $actor, string $text, string $reason = '', ?string $act = null): void
    {
        DB::table('cycle_log')->insert(['cycle_id' => $cycle->id, 'actor_id' => $actor?->id, 'at' => Carbon::now(), 'text' => $text, 'reason' => $reason, 'act_id' => $act]);
        DB::table('cycles')->where('id', $cycle->id)->increment('revision');
        ($this->announce)($cycle->project_id, 'cycle', $cycle->id, $cycle->id);
        ($this->announce)($cycle->project_id, 'entry', $cycle->id, $cycle->id);
    }
}
