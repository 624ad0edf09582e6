<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Support\Carbon;

/**
 * An act on many cases or defects, which can be undone as one.
 *
 * @property string  $project_id
 * @property string  $actor_id
 * @property 'case'|'defect' $subject
 * @property string  $title
 * @property Carbon  $created_at
 * @property ?Carbon $undone_at
 * @property list<string> $folders that were made for the cases
 * @property list<string> $suites  that came with them
 */
final class BulkAct extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['folders' => 'array', 'suites' => 'array', 'created_at' => 'datetime', 'undone_at' => 'datetime'];
}
