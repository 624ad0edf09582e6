<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\Attempt;

/**
 * The rounds of a new attempt, with a result not run yet for each of its steps. Two queries, and more only for thousands of
 * results.
 */
final class InsertRounds
{
    /**
     * @param  list<array{data_row: array<array-key, mixed>, repeats?: ?int}>  $rounds in order
     */
    public static function into(Attempt $attempt, array $rounds): void
    {
        $positions = array_column((array) $attempt->snapshot['steps'], 'position');
        $rows = $results = [];
        foreach ($rounds as $at => $round) {
            $id = (string) Str::uuid7();
            $rows[] = [
                'id' => $id,
                'attempt_id' => $attempt->id,
                'position' => $at + 1,
                'data_row' => json_encode((object) $round['data_row'], \JSON_THROW_ON_ERROR),
                'repeats' => $round['repeats'] ?? null,
            ];
            foreach ($positions as $position) {
                $results[] = ['id' => (string) Str::uuid7(), 'round_id' => $id, 'position' => $position];
            }
        }
        DB::table('rounds')->insert($rows);
        foreach (array_chunk($results, 5000) as $some) {
            DB::table('step_results')->insert($some);
        }
    }
}
