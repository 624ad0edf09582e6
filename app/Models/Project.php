<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * Everything below lives in one.
 *
 * @property string               $code
 * @property string               $name
 * @property string               $time_zone
 * @property ?int                 $retention_days   evidence is taken out so many days after its attempt ended; null: never
 * @property ?int                 $storage_limit_mb how much evidence it may keep; null: no limit
 * @property array<string, mixed> $policies
 * @property list<int>            $working_days
 * @property list<string>         $holidays
 */
final class Project extends Record
{
    /** @var array<string, string> */
    protected $casts = ['policies' => 'array', 'working_days' => 'array', 'holidays' => 'array'];

    /**
     * @return HasMany<Membership, $this>
     */
    public function memberships(): HasMany
    {
        return $this->hasMany(Membership::class);
    }
}
