<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Support\Carbon;

/**
 * Requirements that came out of one file; the log of requirements says what it did.
 *
 * @property string  $project_id
 * @property string  $author_id
 * @property string  $name
 * @property int     $made
 * @property int     $changed
 * @property ?Carbon $undone_at
 * @property Carbon  $created_at
 */
final class RequirementImport extends Record
{
    /** @var array<string, string> */
    protected $casts = ['undone_at' => 'datetime'];
}
