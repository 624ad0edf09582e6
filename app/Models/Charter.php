<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * What is to be explored, with what, to find what.
 *
 * @property string         $project_id
 * @property int            $number
 * @property string         $key
 * @property string         $title            what to explore
 * @property string         $with_what
 * @property string         $to_find
 * @property ?string        $folder_id        the area, where it is a folder
 * @property ?string        $requirement_id   or a requirement
 * @property string         $label            or a label; empty: none
 * @property string         $risk
 * @property string         $priority
 * @property int            $box_minutes      the time box
 * @property ?string        $build_id
 * @property ?string        $configuration_id
 * @property ?string        $milestone_id
 * @property ?string        $assignee_id
 * @property ?string        $not_before       day
 * @property ?Carbon        $dropped_at
 * @property string         $author_id
 * @property int            $version
 * @property Carbon         $created_at
 * @property ?Build         $build
 * @property ?Configuration $configuration
 * @property ?Folder        $folder
 * @property ?Requirement   $requirement
 * @property ?Milestone     $milestone
 * @property ?User          $assignee
 * @property User           $author
 */
final class Charter extends Record
{
    /** @var array<string, string> */
    protected $casts = ['dropped_at' => 'datetime'];

    /**
     * @return BelongsTo<Build, $this>
     */
    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }

    /**
     * @return BelongsTo<Configuration, $this>
     */
    public function configuration(): BelongsTo
    {
        return $this->belongsTo(Configuration::class);
    }

    /**
     * @return BelongsTo<Folder, $this>
     */
    public function folder(): BelongsTo
    {
        return $this->belongsTo(Folder::class);
    }

    /**
     * @return BelongsTo<Requirement, $this>
     */
    public function requirement(): BelongsTo
    {
        return $this->belongsTo(Requirement::class);
    }

    /**
     * @return BelongsTo<Milestone, $this>
     */
    public function milestone(): BelongsTo
    {
        return $this->belongsTo(Milestone::class);
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function assignee(): BelongsTo
    {
        return $this->belongsTo(User::class, 'assignee_id');
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function author(): BelongsTo
    {
        return $this->belongsTo(User::class, 'author_id');
    }
}
