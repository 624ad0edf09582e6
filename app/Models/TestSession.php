<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use LucidStep\Core\Sessions\Focus;
use LucidStep\Core\Sessions\SessionClock;
use LucidStep\Core\Sessions\SessionState;
use LucidStep\Core\Sessions\TimeShares;
use LucidStep\Core\Sessions\Work;

/**
 * A session of exploring, against a charter, within a time box.
 *
 * @phpstan-type Observer array{
 *     origin?: string, page?: string, at?: int, bounds?: array{int, int, int, int}, refused?: string, refused_at?: int
 * }
 *
 * @property string         $project_id
 * @property string         $charter_id
 * @property int            $number           1, 2, 3 … of its charter
 * @property string         $tester_id
 * @property ?string        $build_id
 * @property ?string        $configuration_id
 * @property string         $environment
 * @property SessionState   $state
 * @property int            $box_ms
 * @property list<array{int, ?int}>             $runs       from and to, in ms since 1970
 * @property list<array{int, string}>           $switches   when, and to what
 * @property list<array{string, string, int}>   $time_moves from, to and ms
 * @property Carbon         $started_at
 * @property ?Carbon        $stopped_at
 * @property string         $covered
 * @property string         $remarks
 * @property ?string        $signed_by_id
 * @property ?Carbon        $signed_at
 * @property string         $sign_note
 * @property int            $sequence
 * @property string         $head
 * @property ?int           $sealed_sequence
 * @property ?string        $sealed_head
 * @property ?string        $seal_signature
 * @property ?string        $observer_code    with which a page reports into it; encrypted where it is kept
 * @property ?string        $observer_hash    SHA-256 of that
 * @property Observer       $observer         what came last, from where, and how much
 * @property Charter        $charter
 * @property User           $tester
 * @property ?User          $signedBy
 * @property ?Build         $build
 * @property ?Configuration $configuration
 * @property Collection<int, SessionComment> $comments
 */
final class TestSession extends Record
{
    /** @var array<string, mixed> */
    protected $attributes = [
        'stopped_at' => null,
        'covered' => '',
        'remarks' => '',
        'signed_by_id' => null,
        'signed_at' => null,
        'sign_note' => '',
        'sealed_sequence' => null,
        'sealed_head' => null,
        'seal_signature' => null,
        'observer_code' => null,
        'observer_hash' => null,
        'observer' => '{}',
    ];

    /** @var array<string, string> */
    protected $casts = [
        'state' => SessionState::class,
        'runs' => 'array',
        'switches' => 'array',
        'time_moves' => 'array',
        'started_at' => 'datetime',
        'stopped_at' => 'datetime',
        'signed_at' => 'datetime',
        'observer_code' => 'encrypted',
        'observer' => 'array',
    ];

    public function clock(): SessionClock
    {
        return new SessionClock($this->runs);
    }

    /**
     * What its time went to, up to a moment.
     *
     * @param  int  $until ms since 1970
     */
    public function shares(int $until): TimeShares
    {
        $switches = array_map(static fn(array $s): array => [$s[0], self::share($s[1])], $this->switches);
        $shares = TimeShares::of($this->clock(), $switches, $until);
        foreach ($this->time_moves as [$from, $to, $ms]) {
            $shares = $shares->moved(self::share($from), self::share($to), $ms);
        }

        return $shares;
    }

    public static function share(string $value): Focus|Work
    {
        return Focus::tryFrom($value) ?? Work::from($value);
    }

    /**
     * @return HasMany<SessionLine, $this>
     */
    public function lines(): HasMany
    {
        return $this->hasMany(SessionLine::class, 'session_id');
    }

    /**
     * @return HasMany<SessionComment, $this>
     */
    public function comments(): HasMany
    {
        $all = $this->hasMany(SessionComment::class, 'session_id');
        $all->orderBy('created_at');

        return $all;
    }

    /**
     * @return BelongsTo<Charter, $this>
     */
    public function charter(): BelongsTo
    {
        return $this->belongsTo(Charter::class);
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function tester(): BelongsTo
    {
        return $this->belongsTo(User::class, 'tester_id');
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function signedBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'signed_by_id');
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
}
