<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use LucidStep\App\Models\Casts\TextsById;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Defects\OpenTime;

/**
 * A fault report.
 *
 * @property string                        $project_id
 * @property int                           $number
 * @property string                        $key
 * @property string                        $title
 * @property string                        $body
 * @property string                        $preconditions
 * @property string                        $steps numbered as in the case, in Markdown
 * @property string                        $expected
 * @property string                        $actual
 * @property string                        $environment
 * @property string                        $component  of the project's list; empty: none
 * @property list<string>                  $labels
 * @property array<string, string>         $custom     fields that the project added, by id
 * @property ?string                       $configuration_id
 * @property ?string                       $outside_key its name in the tracker outside
 * @property string                        $outside_url
 * @property string                        $outside_state
 * @property string                        $outside_assignee
 * @property string                        $outside_changed when it changed there, as the tracker tells it
 * @property ?Carbon                       $outside_seen_at
 * @property DefectState                   $state
 * @property string                        $severity
 * @property string                        $reporter_id
 * @property ?string                       $assignee_id
 * @property ?string                       $case_id
 * @property ?string                       $build_id
 * @property ?string                       $fixed_build_id
 * @property ?string                       $priority now, soon, later
 * @property ?DefectState                  $asked_in   where it was when somebody asked back
 * @property ?string                       $duplicate_of_id
 * @property ?Carbon                       $fixed_at   when the build with the fix was named
 * @property int                           $open_ms    its age when it was closed last
 * @property ?Carbon                       $open_since null: it is closed
 * @property int                           $version
 * @property Carbon                        $created_at
 * @property Carbon                        $updated_at
 * @property User                          $reporter
 * @property ?User                         $assignee
 * @property ?TestCase                     $case
 * @property ?Build                        $build
 * @property ?Build                        $fixedBuild
 * @property ?Configuration                $configuration
 * @property ?Defect                       $duplicateOf
 * @property Collection<int, Defect>       $duplicates
 * @property Collection<int, DefectComment> $comments
 * @property Collection<int, DefectLink>   $links
 * @property Collection<int, DefectChange> $history
 */
final class Defect extends Record
{
    /** @var array<string, string> */
    protected $casts = [
        'state' => DefectState::class,
        'asked_in' => DefectState::class,
        'labels' => 'array',
        'custom' => TextsById::class,
        'outside_seen_at' => 'datetime',
        'fixed_at' => 'datetime',
        'open_since' => 'datetime',
    ];

    public function openTime(): OpenTime
    {
        return new OpenTime($this->open_ms, $this->open_since?->getTimestampMs());
    }

    public function setOpenTime(OpenTime $time): void
    {
        $this->open_ms = $time->beforeMs;
        $this->open_since = null === $time->sinceMs ? null : Carbon::createFromTimestampMsUTC($time->sinceMs);
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function reporter(): BelongsTo
    {
        return $this->belongsTo(User::class, 'reporter_id');
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function assignee(): BelongsTo
    {
        return $this->belongsTo(User::class, 'assignee_id');
    }

    /**
     * @return BelongsTo<TestCase, $this>
     */
    public function case(): BelongsTo
    {
        return $this->belongsTo(TestCase::class, 'case_id');
    }

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
     * @return BelongsTo<Build, $this>
     */
    public function fixedBuild(): BelongsTo
    {
        return $this->belongsTo(Build::class, 'fixed_build_id');
    }

    /**
     * @return BelongsTo<Defect, $this>
     */
    public function duplicateOf(): BelongsTo
    {
        return $this->belongsTo(self::class, 'duplicate_of_id');
    }

    /**
     * @return HasMany<Defect, $this>
     */
    public function duplicates(): HasMany
    {
        $all = $this->hasMany(self::class, 'duplicate_of_id');
        $all->orderBy('number');

        return $all;
    }

    /**
     * @return HasMany<DefectComment, $this>
     */
    public function comments(): HasMany
    {
        $all = $this->hasMany(DefectComment::class);
        $all->orderBy('created_at');

        return $all;
    }

    /**
     * @return HasMany<DefectLink, $this>
     */
    public function links(): HasMany
    {
        $all = $this->hasMany(DefectLink::class);
        $all->orderBy('created_at');

        return $all;
    }

    /**
     * @return HasMany<DefectChange, $this>
     */
    public function history(): HasMany
    {
        $all = $this->hasMany(DefectChange::class);
        $all->orderBy('created_at');

        return $all;
    }
}
