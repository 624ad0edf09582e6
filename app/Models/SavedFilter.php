<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A filter of a list that was kept.
 *
 * @property string $project_id
 * @property string $user_id
 * @property 'case'|'defect' $subject what it is a list of
 * @property string $name
 * @property bool   $shared
 * @property array<string, string> $filter
 * @property User   $user
 */
final class SavedFilter extends Record
{
    /** @var array<string, string> */
    protected $casts = ['filter' => 'array', 'shared' => 'boolean'];

    /**
     * @return BelongsTo<User, $this>
     */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
