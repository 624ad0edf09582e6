<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/**
 * The text of a case at one time; never changed.
 *
 * @property string                $case_id
 * @property int                   $number
 * @property string                $title
 * @property string                $objective
 * @property string                $preconditions
 * @property string                $postconditions
 * @property ?string               $author_id
 * @property Carbon                $created_at
 * @property Collection<int, Step> $steps
 */
final class CaseVersion extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['created_at' => 'datetime'];

    /**
     * @return HasMany<Step, $this>
     */
    public function steps(): HasMany
    {
        $all = $this->hasMany(Step::class, 'case_version_id');
        $all->orderBy('position');

        return $all;
    }
}
