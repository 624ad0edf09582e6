<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\EntryChanges;

use Illuminate\Support\Facades\DB;

/**
 * Takes conditions off entries.
 */
final readonly class DropConditions implements EntryChange
{
    /**
     * @param  ?string  $needsId the entry that is waited for; null: every one
     */
    public function __construct(private ?string $needsId) {}

    public function apply(EntryChangeContext $context): string
    {
        $conditions = DB::table('entry_conditions')->whereIn('entry_id', $context->ids());
        if (null !== $this->needsId) {
            $conditions->where('needs_id', $this->needsId);
        }
        $conditions->delete();

        return 'Took conditions off ' . EntryChangeContext::count($context->entries->count());
    }
}
