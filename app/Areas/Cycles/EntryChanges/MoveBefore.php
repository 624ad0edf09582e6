<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\EntryChanges;

use Illuminate\Validation\ValidationException;

/**
 * Moves entries together to another place.
 */
final readonly class MoveBefore implements EntryChange
{
    /**
     * @param  ?string  $beforeId the entry they stand before; null: at the end
     */
    public function __construct(private ?string $beforeId) {}

    public function apply(EntryChangeContext $context): string
    {
        $moved = $context->ids();
        $rest = array_values(array_diff($context->order->of($context->cycle), $moved));
        $at = null === $this->beforeId ? \count($rest) : array_search($this->beforeId, $rest, true);
        if (false === $at) {
            throw ValidationException::withMessages(['changes.before_id' => 'That entry is not in the cycle any more.']);
        }
        $context->order->write([...\array_slice($rest, 0, $at), ...$moved, ...\array_slice($rest, $at)]);

        return 'Moved ' . EntryChangeContext::count(\count($moved));
    }
}
