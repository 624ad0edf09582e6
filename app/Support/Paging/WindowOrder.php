<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Paging;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Query\Builder;

/**
 * The order of a list, and the window of it that follows a line: what comes after is found by the values that the line is
 * ordered by, not counted from the start.
 */
final readonly class WindowOrder
{
    /**
     * @param  non-empty-array<string, 'bigint'|'text'>  $by SQL expressions with their types, in their order; none is ever
     *     null, and the last one is different in every row
     */
    public function __construct(private array $by, private bool $back) {}

    /**
     * Orders a query, and begins it after a line.
     *
     * @param  string  $after what {@see cursor} said of that line; anything else: from the start
     */
    public function apply(Builder $query, string $after): void
    {
        foreach (array_keys($this->by) as $i => $expression) {
            $query->selectRaw("{$expression} as by_{$i}")->orderByRaw($expression . ($this->back ? ' desc' : ''));
        }
        $from = PageCursor::decode($after, \count($this->by));
        if (null !== $from && $this->fits($from)) {
            $marks = implode(', ', array_map(static fn(string $type): string => "?::{$type}", $this->by));
            $query->whereRaw('(' . implode(', ', array_keys($this->by)) . ') ' . ($this->back ? '<' : '>') . " ({$marks})", $from);
        }
    }

    /**
     * @param  \stdClass|Model  $row of a query that was ordered so
     */
    public function cursor(object $row): string
    {
        $values = [];
        foreach (array_keys(array_values($this->by)) as $i) {
            $values[] = $row->{"by_{$i}"};
        }

        return PageCursor::encode($values);
    }

    /**
     * @param  list<scalar|null>  $values
     */
    private function fits(array $values): bool
    {
        foreach (array_values($this->by) as $i => $type) {
            if (!PageCursor::fits($values[$i], 'bigint' === $type ? 'integer' : 'text')) {
                return false;
            }
        }

        return true;
    }
}
