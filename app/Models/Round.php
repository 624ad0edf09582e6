<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\HasMany;
use LucidStep\Core\Verdict\Verdict;

/**
 * One pass through the steps inside an attempt.
 *
 * @property string                      $attempt_id
 * @property int                         $position
 * @property array<string, mixed>        $data_row
 * @property Verdict                     $roll_up
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
}
