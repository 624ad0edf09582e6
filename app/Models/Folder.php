<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

/**
 * A folder of the casebook.
 *
 * @property string  $project_id
 * @property ?string $parent_id
 * @property string  $name
 * @property int     $position
 * @property ?\Illuminate\Support\Carbon $binned_at
 */
final class Folder extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['binned_at' => 'datetime'];
}
