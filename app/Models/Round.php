<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\HasMany;
use LucidStep\Core\Verdict\RoundFacts;
use LucidStep\Core\Verdict\Verdict;

/**
 * One pass through the steps inside an attempt.
 *
 * @property string                      $attempt_id
 * @property int                         $position
 * @property array<string, mixed>        $data_row
 * @property Verdict                     $roll_up
 * @property ?string                     $skipped why it was left out
 * @property ?int                        $repeats the round whose row it walks once more
 * @property Collection<int, StepResult> $results
 */
final class Round extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['data_row' => 'array', 'roll_up' => Verdict::class];

    /**
     * @return HasMany<StepResult, $this>
     */
    public function results(): HasMany
    {
        $all = $this->hasMany(StepResult::class);
        $all->orderBy('position');

        return $all;
    }

    /**
     * What the rules know of it; its results must be loaded.
     */
    public function facts(): RoundFacts
    {
        return new RoundFacts(
            $this->position,
            array_values($this->results->map(static fn(StepResult $r): Verdict => $r->verdict)->all()),
            null !== $this->skipped,
            $this->repeats,
        );
    }
}
