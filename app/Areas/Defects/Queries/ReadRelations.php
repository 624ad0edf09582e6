<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Data\RelatedDefect;
use LucidStep\Core\Defects\DefectRelation;
use LucidStep\Core\Defects\DefectState;

/**
 * Reads how a defect stands to others, whichever end it is.
 */
final class ReadRelations
{
    /**
     * @return list<RelatedDefect> families first, then by key
     */
    public static function of(string $defect): array
    {
        $rows = DB::select(
            <<<'SQL'
            select r.kind, r.from_id = ? as here, d.id, d.key, d.title, d.state
            from defect_relations r
            join defects d on d.id = case when r.from_id = ? then r.to_id else r.from_id end
            where r.from_id = ? or r.to_id = ?
            order by d.number
            SQL
            ,
            [$defect, $defect, $defect, $defect],
        );
        $related = array_map(static function (\stdClass $row): RelatedDefect {
            $kind = DefectRelation::from($row->kind);

            return new RelatedDefect(
                ($row->here ? $kind : $kind->inverse())->value,
                $row->id,
                $row->key,
                $row->title,
                $row->state,
                DefectState::from($row->state)->isClosed(),
            );
        }, $rows);
        $order = array_column(DefectRelation::cases(), 'value');
        usort(
            $related,
            static fn(RelatedDefect $a, RelatedDefect $b): int => array_search($a->relation, $order, true) <=>
                array_search($b->relation, $order, true),
        );

        return $related;
    }
}
