<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * What leads to a fault that a line of a session shows, and what came of it.
 *
 * @property string      $line_id
 * @property string      $project_id
 * @property string      $session_id
 * @property list<array{line: ?string, words: string}> $steps in order, each with the line it comes from
 * @property int         $tries       how often it was walked again
 * @property int         $shown       how often the fault showed
 * @property ?string     $defect_id
 * @property ?string     $case_id
 * @property string      $saved_by_id
 * @property int         $version
 * @property Carbon      $updated_at
 * @property User        $savedBy
 * @property ?Defect     $defect
 * @property ?TestCase   $case
 * @property TestSession $session
 * @property SessionLine $line
 */
final class Repro extends Record
{
    protected $primaryKey = 'line_id';

    /** @var array<string, mixed> */
    protected $attributes = ['steps' => '[]', 'tries' => 0, 'shown' => 0, 'defect_id' => null, 'case_id' => null, 'version' => 1];

    /** @var array<string, string> */
    protected $casts = ['steps' => 'array'];

    /**
     * The one of a line, locked; made where there is none yet.
     */
    public static function of(SessionLine $line, User $by): self
    {
        self::query()->insertOrIgnore([
            'line_id' => $line->id,
            'project_id' => $line->project_id,
            'session_id' => $line->session_id,
            'saved_by_id' => $by->id,
            'created_at' => Carbon::now(),
            'updated_at' => Carbon::now(),
        ]);

        return self::query()->lockForUpdate()->findOrFail($line->id);
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function savedBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'saved_by_id');
    }

    /**
     * @return BelongsTo<Defect, $this>
     */
    public function defect(): BelongsTo
    {
        return $this->belongsTo(Defect::class);
    }

    /**
     * @return BelongsTo<TestCase, $this>
     */
    public function case(): BelongsTo
    {
        return $this->belongsTo(TestCase::class, 'case_id');
    }

    /**
     * @return BelongsTo<TestSession, $this>
     */
    public function session(): BelongsTo
    {
        return $this->belongsTo(TestSession::class, 'session_id');
    }

    /**
     * @return BelongsTo<SessionLine, $this>
     */
    public function line(): BelongsTo
    {
        return $this->belongsTo(SessionLine::class, 'line_id');
    }
}
