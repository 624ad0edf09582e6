<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\EntryChanges;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\LoopRefused;

/**
 * Lets entries wait for another one of their cycle.
 */
final readonly class AddCondition implements EntryChange
{
    public function __construct(private string $needsId, private ?ConditionKind $kind) {}

    public function apply(EntryChangeContext $context): string
    {
        $kind = $this->kind ?? throw ValidationException::withMessages(['changes.kind' => 'Choose “after” or “only if passed”.']);
        $needs = $this->needsId;
        $needed =
            $this->entries()
                ->where('cycle_id', $context->cycle->id)
                ->where('entries.id', $needs)
                ->first(['entries.id', 'cases.key']) ??
            throw ValidationException::withMessages(['changes.needs_id' => 'Choose an entry of this cycle.']);
        $ids = array_values(array_diff($context->ids(), [$needs]));
        if ([] === $ids) {
            throw ValidationException::withMessages(['changes.needs_id' => "{$needed->key} would wait for itself."]);
        }
        $waits = array_flip($ids);
        $kept = array_filter(
            ReadCycle::conditions($context->cycle->id),
            static fn(Condition $c): bool => !($c->needs === $needs && isset($waits[$c->entry])),
        );
        try {
            Conditions::of([
                ...array_values($kept),
                ...array_map(static fn(string $id): Condition => new Condition($id, $needs, $kind), $ids),
            ]);
        } catch (LoopRefused $e) {
            $keys = $this->entries()->whereIn('entries.id', $e->loop)->pluck('cases.key', 'entries.id')->all();
            throw ValidationException::withMessages(['changes.needs_id' => $e->named($keys)]);
        }
        $rows = array_map(static fn(string $id): array => ['entry_id' => $id, 'needs_id' => $needs, 'kind' => $kind->value], $ids);
        foreach (array_chunk($rows, 5000) as $some) {
            DB::table('entry_conditions')->upsert($some, ['entry_id', 'needs_id'], ['kind']);
        }
        $words = ConditionKind::After === $kind ? "after {$needed->key}" : "only if {$needed->key} passed";

        return \sprintf('Set “%s” on %s', $words, EntryChangeContext::count(\count($ids)));
    }

    private function entries(): Builder
    {
        return DB::table('entries')->join('cases', 'cases.id', '=', 'case_id');
    }
}
