<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

/**
 * What must hold.
 *
 * @property string  $project_id
 * @property int     $number
 * @property string  $key
 * @property string  $title
 * @property ?string $parent_id
 */
final class Requirement extends Record {}
