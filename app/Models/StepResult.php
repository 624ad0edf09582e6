<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Support\Carbon;
use LucidStep\Core\Verdict\Verdict;

/**
 * What was recorded of a step in a round.
 *
 * @property string  $round_id
 * @property int     $position
 * @property Verdict $verdict
 * @property string  $note
 * @property string  $happened
 * @property string  $reason
 * @property string  $waits_on
 * @property int     $active_ms
 * @property int     $tries        how often it was tried before it was judged
 * @property int     $tries_failed
 * @property ?Carbon $judged_at
 */
final class StepResult extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['verdict' => Verdict::class, 'judged_at' => 'datetime'];
}
