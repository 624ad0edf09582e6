<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\EntryChanges;

use Illuminate\Support\Facades\DB;

/**
 * Takes entries out of the cycle. Walked ones stay: what was recorded is kept.
 */
final readonly class RemoveEntries implements EntryChange
{
    private const WALKED = 'It was walked; what was recorded stays. Assign it to nobody, or judge it not applicable.';

    public function apply(EntryChangeContext $context): string
    {
        $walked = static fn(\stdClass $e): bool => $e->attempts_count > 0 || $e->defects_count > 0;
        [$stay, $free] = $context->entries->partition($walked);
        $context->refused = array_fill_keys($stay->keys()->all(), self::WALKED);
        $context->removed = array_values($free->map(static fn(\stdClass $e): array => (array) $e)->all());
        $ids = $free->keys();
        foreach ($ids->chunk(5000) as $some) {
            $conditions = DB::table('entry_conditions')->whereIn('entry_id', $some)->orWhereIn('needs_id', $some)->get();
            foreach ($conditions as $condition) {
                $context->removedConditions[] = (array) $condition;
            }
        }
        foreach ($ids->chunk(5000) as $some) {
            DB::table('entries')->whereIn('id', $some)->delete();
        }

        return 'Removed ' . EntryChangeContext::count($free->count());
    }
}
