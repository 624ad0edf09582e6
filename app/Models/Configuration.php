<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

/**
 * A named combination of values on the project's axes.
 *
 * @property string $project_id
 * @property string $name
 * @property int    $position
 */
final class Configuration extends Record
{
    public $timestamps = false;
}
