<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\EntryChanges;

use Illuminate\Support\Collection;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Notices\Actions\NotifyPeople;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\User;

/**
 * What a change of entries works on, and what it leaves out.
 */
final class EntryChangeContext
{
    /** @var array<string, string> why an entry is left as it is, by its id */
    public array $refused = [];

    /** @var list<array<string, scalar|null>> the rows of entries that go, to undo it */
    public array $removed = [];

    /** @var list<array<string, scalar|null>> the conditions that go with them */
    public array $removedConditions = [];

    /**
     * @param  Collection<string, \stdClass>  $entries rows by id, in the order of the cycle
     */
    public function __construct(
        public readonly Cycle $cycle,
        public readonly User $user,
        public readonly Collection $entries,
        public readonly EntryOrder $order,
        public readonly NotifyPeople $notify,
    ) {}

    /**
     * @return list<string>
     */
    public function ids(): array
    {
        return array_values($this->entries->keys()->all());
    }

    /**
     * The entries in words, such as "3 entries".
     */
    public static function count(int $n): string
    {
        return $n . ' ' . Str::plural('entry', $n);
    }
}
