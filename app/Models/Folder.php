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
 */
final class Folder extends Record
{
    public $timestamps = false;
}
