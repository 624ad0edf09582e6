<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/**
 * Everything below lives in one.
 *
 * @property string               $code
 * @property string               $name
 * @property string               $time_zone
 * @property ?int                 $retention_days   evidence is taken out so many days after its attempt ended; null: never
 * @property ?int                 $storage_limit_mb how much evidence it may keep; null: no limit
 * @property array<string, mixed> $policies
 * @property array<string, mixed> $access what it says of who may what
 * @property list<int>            $working_days
 * @property list<string>         $holidays
 * @property ?Carbon              $archived_at      since when nobody writes in it any more
 * @property ?Carbon              $deleting_at      since when it is on its way out
 */
final class Project extends Record
{
    /** @var array<string, string> */
    protected $casts = [
        'policies' => 'array',
        'access' => 'array',
        'working_days' => 'array',
        'holidays' => 'array',
        'archived_at' => 'datetime',
        'deleting_at' => 'datetime',
    ];

    /**
     * @return HasMany<Membership, $this>
     */
    public function memberships(): HasMany
    {
        return $this->hasMany(Membership::class);
    }
}
