<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A named place where a build runs.
 *
 * @property string  $project_id
 * @property string  $name
 * @property string  $address  of the application under test; empty where it has none
 * @property ?string $build_id what is deployed there
 * @property string  $notes
 * @property int     $position
 * @property bool    $observed whether its pages may report what is done on them to a session
 *
 * @property ?Build $build
 */
final class Environment extends Record
{
    public $timestamps = false;

    /** @var array<string, mixed> */
    protected $attributes = ['observed' => false];

    /** @var array<string, string> */
    protected $casts = ['observed' => 'boolean'];

    /**
     * @return BelongsTo<Build, $this>
     */
    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }
}
