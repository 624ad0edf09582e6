<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Support\Carbon;

/**
 * Cases on their way out.
 *
 * @property string $project_id
 * @property string $author_id
 * @property JobState $state
 * @property string $format
 * @property array<string, mixed> $options
 * @property int    $total
 * @property string $path
 * @property int    $bytes
 * @property string $problem
 * @property Carbon $created_at
 */
final class CaseExport extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['state' => JobState::class, 'options' => 'array', 'created_at' => 'datetime'];
}
