<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Support\Carbon;

/**
 * A file of cases on its way in.
 *
 * @property string  $project_id
 * @property string  $author_id
 * @property string  $name
 * @property JobState  $state
 * @property string  $format
 * @property string  $path
 * @property list<string> $header
 * @property list<list<string>> $samples
 * @property list<?string> $mapping
 * @property 'step'|'case' $layout
 * @property array<string, mixed> $facts
 * @property list<array<string, mixed>> $report
 * @property int     $total
 * @property string  $problem
 * @property ?string $act_id
 * @property Carbon  $created_at
 * @property ?Carbon $finished_at
 */
final class CaseImport extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = [
        'state' => JobState::class,
        'header' => 'array',
        'samples' => 'array',
        'mapping' => 'array',
        'facts' => 'array',
        'report' => 'array',
        'created_at' => 'datetime',
        'finished_at' => 'datetime',
    ];
}
