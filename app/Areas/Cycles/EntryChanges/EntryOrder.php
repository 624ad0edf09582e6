<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\EntryChanges;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Cycle;

/**
 * The order of a cycle's entries.
 */
final class EntryOrder
{
    /**
     * @return list<string> ids
     */
    public function of(Cycle $cycle): array
    {
        return array_values(DB::table('entries')->where('cycle_id', $cycle->id)->orderBy('position')->pluck('id')->all());
    }

    /**
     * Writes only the places that change.
     *
     * @param  list<string>  $order all entries of the cycle
     */
    public function write(array $order): void
    {
        foreach (array_chunk($order, 5000, true) as $some) {
            DB::update(
                'update entries set position = n.at from unnest(?::uuid[], ?::int[]) as n (id, at) ' .
                    'where entries.id = n.id and entries.position <> n.at',
                ['{' . implode(',', $some) . '}', '{' . implode(',', array_map(static fn(int $i): int => $i + 1, array_keys($some))) . '}'],
            );
        }
    }
}
