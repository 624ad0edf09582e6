<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\Step as CaseStep;

/**
 * The text of a case at one time; never changed.
 *
 * @property string                $case_id
 * @property int                   $number
 * @property string                $title
 * @property string                $objective
 * @property string                $preconditions
 * @property string                $postconditions
 * @property ?string               $table_id
 * @property list<array{sha256: string, name: string}> $files
 * @property ?string               $author_id
 * @property ?User                 $author
 * @property Carbon                $created_at
 * @property Collection<int, Step> $steps
 * @property TestCase $case
 * @property ?DataTable $dataTable
 */
final class CaseVersion extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['created_at' => 'datetime', 'files' => 'array'];

    /**
     * @return HasMany<Step, $this>
     */
    public function steps(): HasMany
    {
        $all = $this->hasMany(Step::class, 'case_version_id');
        $all->orderBy('position');

        return $all;
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function author(): BelongsTo
    {
        return $this->belongsTo(User::class, 'author_id');
    }

    /**
     * @return BelongsTo<TestCase, $this>
     */
    public function case(): BelongsTo
    {
        return $this->belongsTo(TestCase::class, 'case_id');
    }

    /**
     * @return BelongsTo<DataTable, $this>
     */
    public function dataTable(): BelongsTo
    {
        return $this->belongsTo(DataTable::class, 'table_id');
    }

    /**
     * The text as the rules of the job take it.
     */
    public function text(): CaseText
    {
        return new CaseText(
            $this->title,
            $this->objective,
            $this->preconditions,
            $this->postconditions,
            array_values($this->steps->map(static fn(Step $s): CaseStep => $s->toCore())->all()),
            $this->table_id,
            $this->files,
        );
    }
}
