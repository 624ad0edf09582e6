<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use LucidStep\Core\Data\Parameter;
use LucidStep\Core\Data\Routine as CoreRoutine;

/**
 * A routine at one time; never changed.
 *
 * @property string $routine_id
 * @property int    $number
 * @property string $name
 * @property list<array{name: string, default: string}> $parameters
 * @property ?string $author_id
 * @property Carbon $created_at
 * @property Collection<int, Step> $steps
 */
final class RoutineVersion extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['parameters' => 'array', 'created_at' => 'datetime'];

    /**
     * @return HasMany<Step, $this>
     */
    public function steps(): HasMany
    {
        $all = $this->hasMany(Step::class, 'routine_version_id');
        $all->orderBy('position');

        return $all;
    }

    public function toCore(): CoreRoutine
    {
        return new CoreRoutine(
            $this->routine_id,
            $this->name,
            array_map(static fn(array $p): Parameter => new Parameter($p['name'], $p['default']), $this->parameters),
            array_values($this->steps->map(static fn(Step $s) => $s->toCore())->all()),
        );
    }
}
