<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Exceptions\DefectConflict;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\Core\Defects\Chains;
use LucidStep\Core\Defects\DefectRelation;

/**
 * Says how one defect stands to another, or takes it back. Both say so in their history.
 */
final readonly class RelateDefects
{
    public function __construct(private PublishChange $announce) {}

    /**
     * @throws DefectConflict when it would stand to itself, under itself, or under two
     */
    public function add(Defect $defect, User $by, DefectRelation $relation, Defect $other): void
    {
        if ($defect->id === $other->id) {
            throw DefectConflict::relatedToItself();
        }
        // Others of the project may join families at the same time.
        Project::query()->lockForUpdate()->findOrFail($defect->project_id);
        [$from, $kind, $to] = $relation->isKept() ? [$defect, $relation, $other] : [$other, $relation->inverse(), $defect];
        if (DefectRelation::Under === $kind) {
            $this->checkFamily($from, $to);
        }
        if ($this->between($from, $kind, $to)->doesntExist()) {
            DB::table('defect_relations')->insert([
                'from_id' => $from->id,
                'to_id' => $to->id,
                'kind' => $kind->value,
                'by_id' => $by->id,
                'created_at' => Carbon::now()->format('Y-m-d H:i:s.uP'),
            ]);
            $this->tell($defect, $by, $relation, $other, true);
        }
    }

    public function remove(Defect $defect, User $by, DefectRelation $relation, Defect $other): void
    {
        [$from, $kind, $to] = $relation->isKept() ? [$defect, $relation, $other] : [$other, $relation->inverse(), $defect];
        if ($this->between($from, $kind, $to)->delete() > 0) {
            $this->tell($defect, $by, $relation, $other, false);
        }
    }

    /**
     * @return Builder the row that says so; what has no direction may stand either way
     */
    private function between(Defect $from, DefectRelation $kind, Defect $to): Builder
    {
        $ends = DefectRelation::RelatesTo === $kind ? [[$from->id, $to->id], [$to->id, $from->id]] : [[$from->id, $to->id]];

        return DB::table('defect_relations')
            ->where('kind', $kind)
            ->where(static function (Builder $query) use ($ends): void {
                foreach ($ends as [$one, $other]) {
                    $query->orWhere(static fn(Builder $q): Builder => $q->where('from_id', $one)->where('to_id', $other));
                }
            });
    }

    private function checkFamily(Defect $child, Defect $parent): void
    {
        /** @var array<string, string> $parents */
        $parents = DB::table('defect_relations as r')
            ->join('defects as d', 'd.id', '=', 'r.from_id')
            ->where('d.project_id', $child->project_id)
            ->where('r.kind', DefectRelation::Under)
            ->pluck('r.to_id', 'r.from_id')
            ->all();
        $has = $parents[$child->id] ?? null;
        if (null !== $has && $has !== $parent->id) {
            throw DefectConflict::hasParent(Defect::query()->findOrFail($has)->key);
        }
        if (!(new Chains($parents))->mayPoint($child->id, $parent->id)) {
            throw DefectConflict::parentLoop();
        }
    }

    private function tell(Defect $defect, User $by, DefectRelation $relation, Defect $other, bool $isNew): void
    {
        foreach ([[$defect, $relation, $other], [$other, $relation->inverse(), $defect]] as [$one, $kind, $second]) {
            DefectChange::query()->create([
                'defect_id' => $one->id,
                'actor_id' => $by->id,
                'from_state' => $one->state,
                'to_state' => $one->state,
                'fields' => [$kind->value => $isNew ? [null, $second->key] : [$second->key, null]],
                'created_at' => Carbon::now(),
            ]);
            ($this->announce)($one->project_id, 'defect', $one->id);
        }
    }
}
