<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

/**
 * A step of a version of a case.
 *
 * @property string $case_version_id
 * @property int    $position
 * @property string $action
 * @property string $data
 * @property string $expected
 */
final class Step extends Record
{
    public $timestamps = false;
}
