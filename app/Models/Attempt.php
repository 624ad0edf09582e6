<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use LucidStep\Core\Verdict\AttemptFacts;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\Verdict;

/**
 * One walk of an entry by one person.
 *
 * @property string                      $project_id
 * @property string                      $entry_id
 * @property int                         $number
 * @property string                      $tester_id
 * @property ?string                     $build_id
 * @property ?string                     $configuration_id
 * @property AttemptState                $state
 * @property array<string, mixed>        $snapshot
 * @property bool                        $has_verdict
 * @property Verdict                     $roll_up
 * @property ?Verdict                    $verdict
 * @property bool                        $overruled
 * @property string                      $note
 * @property int                         $active_ms
 * @property ?int                        $corrected_ms
 * @property ?Carbon                     $time_seen_at
 * @property ?string                     $override_reason
 * @property ?string                     $environment_id
 * @property string                      $environment     more of it, in words
 * @property string                      $remark        a note on the whole attempt
 * @property bool                        $from_list     judged from the cycle's list
 * @property ?string                     $parallel_reason        why it stands beside the attempt that was open
 * @property string                      $takeover_word
 * @property ?string                     $late_of_id
 * @property Carbon                      $started_at
 * @property ?Carbon                     $finished_at
 * @property ?Carbon                     $taken_over_at
 * @property int                         $sequence
 * @property string                      $head
 * @property ?int                        $sealed_sequence
 * @property ?string                     $sealed_head
 * @property ?string                     $seal_signature of the installation, with the fingerprint of its key
 * @property Entry                       $entry
 * @property User                        $tester
 * @property ?Build                      $build
 * @property ?Configuration              $configuration
 * @property ?Environment                $namedEnvironment
 * @property Collection<int, Round>      $rounds
 * @property Collection<int, Evidence>   $evidence
 * @property Collection<int, DefectLink> $defectLinks
 * @property Collection<int, LateCommand>    $lateCommands
 */
final class Attempt extends Record
{
    public $timestamps = false;

    /** Whether what is being written arrived after its attempt was taken over or its cycle closed; its events say so. */
    public bool $arrivedLate = false;

    /** @var array<string, mixed> */
    protected $attributes = [
        'environment' => '',
        'remark' => '',
        'from_list' => false,
        'parallel_reason' => null,
        'takeover_word' => '',
        'late_of_id' => null,
        'override_reason' => null,
        'corrected_ms' => null,
        'finished_at' => null,
        'taken_over_at' => null,
        'sealed_sequence' => null,
        'sealed_head' => null,
        'seal_signature' => null,
    ];

    /** @var array<string, string> */
    protected $casts = [
        'state' => AttemptState::class,
        'snapshot' => 'array',
        'has_verdict' => 'boolean',
        'roll_up' => Verdict::class,
        'verdict' => Verdict::class,
        'overruled' => 'boolean',
        'from_list' => 'boolean',
        'started_at' => 'datetime',
        'finished_at' => 'datetime',
        'time_seen_at' => 'datetime',
        'taken_over_at' => 'datetime',
    ];

    /**
     * @return BelongsTo<Entry, $this>
     */
    public function entry(): BelongsTo
    {
        return $this->belongsTo(Entry::class);
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function tester(): BelongsTo
    {
        return $this->belongsTo(User::class, 'tester_id');
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
     * @return BelongsTo<Environment, $this>
     */
    public function namedEnvironment(): BelongsTo
    {
        return $this->belongsTo(Environment::class, 'environment_id');
    }

    /**
     * @return HasMany<Round, $this>
     */
    public function rounds(): HasMany
    {
        $all = $this->hasMany(Round::class);
        $all->orderBy('position');

        return $all;
    }

    /**
     * @return HasMany<Evidence, $this>
     */
    public function evidence(): HasMany
    {
        $all = $this->hasMany(Evidence::class);
        $all->orderBy('created_at');

        return $all;
    }

    /**
     * @return HasMany<DefectLink, $this>
     */
    public function defectLinks(): HasMany
    {
        $all = $this->hasMany(DefectLink::class);
        $all->orderBy('created_at');

        return $all;
    }

    /**
     * @return HasMany<LateCommand, $this>
     */
    public function lateCommands(): HasMany
    {
        $all = $this->hasMany(LateCommand::class);
        $all->orderBy('counter')->orderBy('received_at');

        return $all;
    }

    /**
     * What the rules know of it.
     */
    public function facts(): AttemptFacts
    {
        // One that stands beside shows only once it is finished.
        return new AttemptFacts(
            $this->number,
            $this->state,
            $this->has_verdict && null === $this->parallel_reason,
            $this->verdict,
            $this->started_at->toDateTimeImmutable(),
        );
    }
}
