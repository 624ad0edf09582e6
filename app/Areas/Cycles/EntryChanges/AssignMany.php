<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\EntryChanges;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;

/**
 * Assigns entries to several people at once, each of whom is told, and may put them into another order.
 */
final readonly class AssignMany implements EntryChange
{
    /**
     * @param  array<string, string>  $given person by entry
     * @param  string  $title what was done
     * @param  list<string>  $order entries that come first, in this order; empty: the order stays
     */
    public function __construct(private array $given, private string $title, private array $order = []) {}

    public function apply(EntryChangeContext $context): string
    {
        $by = [];
        foreach ($this->given as $entry => $person) {
            $by[$person][] = $entry;
        }
        foreach ($by as $person => $ids) {
            $new = array_filter($ids, static fn(string $id): bool => $context->entries[$id]?->assignee_id !== $person);
            foreach (array_chunk($ids, 5000) as $some) {
                DB::table('entries')
                    ->where('cycle_id', $context->cycle->id)
                    ->whereIn('id', $some)
                    ->update(['assignee_id' => $person, 'updated_at' => Carbon::now()]);
            }
            $context->notify->assigned($context->cycle, $context->user, (string) $person, \count($new), '');
        }
        if ([] !== $this->order) {
            $context->order->write([...$this->order, ...array_values(array_diff($context->order->of($context->cycle), $this->order))]);
        }

        return $this->title;
    }
}
