<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

use LucidStep\Core\Access\Permission;

/**
 * What it takes to undo an act of the setup: whether it can be, by whom, and what its lists were before.
 *
 * @phpstan-import-type Row from SetupChange
 */
final readonly class SetupUndo
{
    /** Tables whose rows come and go by the setup's own pages. */
    private const LISTS = [
        'list_items',
        'custom_fields',
        'environments',
        'axes',
        'axis_values',
        'forbidden_pairs',
        'releases',
        'builds',
        'configurations',
    ];

    private const TIME = ['minutes_per_day', 'days_off'];

    private const STORAGE = ['retention_days', 'storage_limit_mb'];

    private const CALENDAR = ['working_days', 'holidays', 'time_zone'];

    /**
     * @param  list<SetupChange>  $changes what the act changed, each thing once
     */
    public function __construct(private array $changes) {}

    /**
     * Whether it is undone in another way than from the log: people come and go on their own page, milestones and labels have their own.
     */
    public function isElsewhere(): bool
    {
        $axes = [] !== $this->of('axes') || [] !== $this->of('axis_values');
        foreach ($this->changes as $change) {
            $columns = self::columns($change);
            $stays = null !== $change->old && null !== $change->new;
            $here = match ($change->subject) {
                // What is called after its values follows them. One that was taken out is made again, of values that the log does not name.
                'configurations' => $axes || null !== $change->new,
                'memberships' => $stays && [] === array_diff($columns, self::TIME),
                'projects' => $stays && [] === array_filter($columns, static fn(string $c): bool => !self::isOfProject($c)),
                default => \in_array($change->subject, self::LISTS, true),
            };
            if (!$here) {
                return true;
            }
        }

        return [] === $this->changes;
    }

    /**
     * Whether something that it changed is otherwise by now.
     *
     * @param  array<string, ?Row>  $now each thing as it is now, by {@see id()}; null or left out: not there
     */
    public function isOvertaken(array $now): bool
    {
        foreach ($this->changes as $change) {
            $is = $now[self::id($change)] ?? null;
            if (null === $change->new || null === $is) {
                if (null !== $is || null !== $change->new) {
                    return true;
                }

                continue;
            }
            $left = self::flat($change->new);
            $found = self::flat($is);
            foreach (null === $change->old ? array_keys($left) : self::columns($change) as $column) {
                // Where it stands among others is theirs to change.
                if ('position' !== $column && ($found[$column] ?? null) !== ($left[$column] ?? null)) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * Who may: what an admin alone may change, an admin alone takes back.
     */
    public function needs(): Permission
    {
        foreach ($this->of('projects') as $change) {
            if ([] !== array_intersect(self::columns($change), self::STORAGE)) {
                return Permission::Administer;
            }
        }

        return Permission::Lead;
    }

    /**
     * @return list<SetupChange> those of one table
     */
    public function of(string $subject): array
    {
        return array_values(array_filter($this->changes, static fn(SetupChange $c): bool => $c->subject === $subject));
    }

    /**
     * @return list<string> of all of one table that it changed
     */
    public function keys(string $subject): array
    {
        return array_map(static fn(SetupChange $c): string => $c->key, $this->of($subject));
    }

    /**
     * The rows of a table as they were before the act: what it added is gone, what it took out is back, what it changed is as it was.
     * What others changed stays. Rows that have a place stand by it, others keep theirs, and what comes back stands last.
     *
     * @param  array<array-key, Row>  $now by key, in order
     *
     * @return array<array-key, Row>
     */
    public function rows(string $subject, array $now): array
    {
        foreach ($this->of($subject) as $change) {
            if (null === $change->old) {
                unset($now[$change->key]);
            } else {
                $now[$change->key] = [...$now[$change->key] ?? [], ...$change->old];
            }
        }
        uasort($now, static fn(array $a, array $b): int => ($a['position'] ?? 0) <=> ($b['position'] ?? 0));

        return $now;
    }

    /**
     * What of the project's own row was before the act, by column; policies by their names.
     *
     * @return array{policies: array<string, mixed>, calendar: array<string, mixed>, storage: array<string, mixed>}
     */
    public function project(): array
    {
        $was = ['policies' => [], 'calendar' => [], 'storage' => []];
        foreach ($this->of('projects') as $change) {
            $old = self::flat($change->old ?? []);
            foreach (self::columns($change) as $column) {
                $part = match (true) {
                    str_starts_with($column, 'policies.') => 'policies',
                    \in_array($column, self::CALENDAR, true) => 'calendar',
                    default => 'storage',
                };
                $was[$part][(string) preg_replace('/^policies\./', '', $column)] = $old[$column] ?? null;
            }
        }

        return $was;
    }

    public static function id(SetupChange $change): string
    {
        return "{$change->subject} {$change->key}";
    }

    private static function isOfProject(string $column): bool
    {
        return str_starts_with($column, 'policies.') || \in_array($column, [...self::CALENDAR, ...self::STORAGE], true);
    }

    /**
     * @return list<string> the columns that are otherwise after it, each policy as one
     */
    private static function columns(SetupChange $change): array
    {
        [$old, $new] = [self::flat($change->old ?? []), self::flat($change->new ?? [])];

        return array_values(
            array_filter(
                array_map(strval(...), array_keys($old + $new)),
                static fn(string $c): bool => ($old[$c] ?? null) !== ($new[$c] ?? null),
            ),
        );
    }

    /**
     * @param  Row  $row
     *
     * @return array<string, mixed> policies and access as columns of their own, so that two of them are two things
     */
    private static function flat(array $row): array
    {
        foreach (['policies', 'access'] as $column) {
            $parts = $row[$column] ?? null;
            unset($row[$column]);
            foreach (\is_array($parts) ? $parts : [] as $name => $value) {
                $row["{$column}.{$name}"] = $value;
            }
        }

        return $row;
    }
}
