<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use LucidStep\Core\Coverage\RequirementWords;

/**
 * What must hold.
 *
 * @property string                $project_id
 * @property int                   $number
 * @property string                $key
 * @property string                $title
 * @property string                $text           Markdown
 * @property ?string               $external_id    what another program calls it
 * @property array<string, string> $details        what other programs say of it beside
 * @property ?string               $parent_id
 * @property float                 $position       among those with the same parent
 * @property int                   $revision
 * @property int                   $words_revision grows with title or text
 * @property ?Carbon               $dropped_at
 * @property Carbon                $created_at
 * @property Carbon                $updated_at
 * @property ?Requirement          $parent
 */
final class Requirement extends Record
{
    /** @var array<string, string> */
    protected $casts = ['dropped_at' => 'datetime', 'position' => 'float', 'details' => 'array'];

    /**
     * @return BelongsTo<self, $this>
     */
    public function parent(): BelongsTo
    {
        return $this->belongsTo(self::class, 'parent_id');
    }

    public function words(): RequirementWords
    {
        return new RequirementWords($this->title, $this->text, $this->external_id, $this->details);
    }
}
