<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

/**
 * A named combination of values on the project's axes.
 *
 * @property string $project_id
 * @property string $name
 * @property int    $position
 * @property bool   $named_by_values whether it goes by the names of its values; false: somebody named it
 */
final class Configuration extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['named_by_values' => 'boolean'];

    /** @var array<string, mixed> */
    protected $attributes = ['named_by_values' => false];
}
