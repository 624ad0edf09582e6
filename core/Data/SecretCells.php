<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

/**
 * What becomes of secret cells when the columns of a table change: they follow their column. They were never shown, so whoever changes
 * the table sends none for those that stay.
 */
final readonly class SecretCells
{
    /**
     * @param  list<Column>  $now
     * @param  list<Column>  $before
     * @param  array<int, int>  $places before by places now
     */
    private function __construct(private array $now, private array $before, private array $places) {}

    /**
     * A column is the one before of the same name, or that in its place where as many are there and only its name is new.
     *
     * @param  list<Column>  $now
     * @param  list<Column>  $before
     */
    public static function of(array $now, array $before): self
    {
        $names = array_map(static fn(Column $c): string => mb_strtolower($c->name), $before);
        $places = [];
        foreach ($now as $at => $column) {
            $found = array_search(mb_strtolower($column->name), $names, true);
            if (\is_int($found)) {
                $places[$at] = $found;
            } elseif (\count($now) === \count($before)) {
                $places[$at] = $at;
            }
        }
        // Two columns are never made of one.
        $once = array_filter($places, static fn(int $place): bool => 1 === \count(array_keys($places, $place, true)));

        return new self($now, $before, $once);
    }

    /**
     * What a cell holds that was not typed anew.
     *
     * @param  int  $at the column by its place now
     * @param  list<string>  $clear the row as it was, in clear
     *
     * @throws \DomainException with a sentence for the person, when it held a secret that it cannot keep
     */
    public function kept(int $at, array $clear): string
    {
        $column = $this->now[$at] ?? null;
        $place = $this->places[$at] ?? null;
        $old = $this->before[$place ?? $at] ?? null;
        $held = $clear[$place ?? $at] ?? '';
        if (true === $old?->secret && '' !== $held && (null === $place || true !== $column?->secret)) {
            throw new \DomainException(
                'What was typed in secret is not shown again: leave "' .
                    ($column->name ?? $old->name) .
                    '" secret and called as it was, or type its cells anew.',
            );
        }

        return null !== $place && true === $column?->secret ? $held : '';
    }
}
