<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\EntryChanges;

use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\Core\Planning\Conditions;

/**
 * Puts each entry that waits behind what it waits for; everything else stays in its order.
 */
final readonly class SortByDependencies implements EntryChange
{
    public function apply(EntryChangeContext $context): string
    {
        $conditions = Conditions::of(ReadCycle::conditions($context->cycle->id));
        $context->order->write($conditions->sortedByDependencies($context->order->of($context->cycle)));

        return 'Put what waits behind what it waits for';
    }
}
