<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

/**
 * A build that is being tested.
 *
 * @property string $project_id
 * @property string $name
 * @property int    $position
 * @property ?string $release_id
 */
final class Build extends Record
{
    public $timestamps = false;
}
