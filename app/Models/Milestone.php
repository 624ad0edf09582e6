<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/**
 * A dated goal that holds cycles.
 *
 * @property string $project_id
 * @property string $name
 * @property string $type
 * @property string $description
 * @property Carbon $due_on
 */
final class Milestone extends Record
{
    /** @var array<string, string> */
    protected $casts = ['due_on' => 'date'];

    /**
     * @return HasMany<Cycle, $this>
     */
    public function cycles(): HasMany
    {
        $all = $this->hasMany(Cycle::class);
        $all->orderBy('starts_on')->orderBy('id');

        return $all;
    }
}
