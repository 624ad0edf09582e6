<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Facades\DB;

/**
 * Takes folders out of the bin, with those around them.
 */
final class RestoreFolders
{
    /**
     * @param  array<array-key, mixed>  $folders ids, those around them come back too
     */
    public function __invoke(array $folders): void
    {
        $ids = array_values(array_unique(array_filter($folders, is_string(...))));
        if ([] !== $ids) {
            $places = implode(', ', array_fill(0, \count($ids), '?'));
            DB::update(
                "with recursive up as (select id, parent_id from folders where id in ({$places}) union select f.id, " .
                    'f.parent_id from folders f join up on f.id = up.parent_id) update folders set binned_at = null where ' .
                    'binned_at is not null and id in (select id from up)',
                $ids,
            );
        }
    }
}
