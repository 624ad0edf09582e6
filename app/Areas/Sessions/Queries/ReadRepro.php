<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Queries;

use LucidStep\App\Areas\Defects\Data\DefectName;
use LucidStep\App\Areas\Sessions\Data\ReproDetail;
use LucidStep\App\Areas\Sessions\Data\ReproStep;
use LucidStep\App\Models\Repro;
use LucidStep\App\Support\Data\Person;

/**
 * Reads what leads to faults that sessions saw.
 */
final class ReadRepro
{
    public function ofLine(string $line): ?ReproDetail
    {
        $found = self::with()->find($line);

        return null === $found ? null : self::detail($found);
    }

    /**
     * @return list<ReproDetail> in the order of their lines
     */
    public function ofSession(string $session): array
    {
        return array_values(self::with()->where('session_id', $session)->get()->map(self::detail(...))->sortBy('at_ms')->all());
    }

    /**
     * @return \Illuminate\Database\Eloquent\Builder<Repro>
     */
    private static function with(): \Illuminate\Database\Eloquent\Builder
    {
        return Repro::query()->with('defect', 'case', 'savedBy', 'line');
    }

    private static function detail(Repro $r): ReproDetail
    {
        return new ReproDetail(
            $r->line_id,
            $r->line->at_ms,
            $r->line->words,
            array_map(static fn(array $s): ReproStep => new ReproStep($s['line'], $s['words']), $r->steps),
            $r->tries,
            $r->shown,
            null === $r->defect ? null : DefectName::of($r->defect),
            $r->case?->key,
            $r->case?->title,
            $r->version,
            Person::from($r->savedBy),
            $r->updated_at->toIso8601ZuluString('millisecond'),
        );
    }
}
