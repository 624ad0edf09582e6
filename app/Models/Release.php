<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

/**
 * What is being tested; it has builds.
 *
 * @property string $project_id
 * @property string $name
 * @property int    $position
 */
final class Release extends Record
{
    public $timestamps = false;
}
