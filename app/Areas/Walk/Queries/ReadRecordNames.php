<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Attempt;
use LucidStep\Core\Record\Event;

/**
 * The names of what the events of an attempt say by id, as they are now: they stand beside the record.
 */
final class ReadRecordNames
{
    /** The fields of events that say something by id, and the tables in which it has a name. */
    private const FIELDS = [
        'tester' => 'users',
        'from' => 'users',
        'to' => 'users',
        'build' => 'builds',
        'configuration' => 'configurations',
        'environment_id' => 'environments',
        'defect' => 'defects',
    ];

    /**
     * @param  Attempt  $attempt with entry.cycle
     * @param  list<Event>  $events
     *
     * @return array<string, string> of the cycle, people, builds, configurations, environments and defects, by id in order
     */
    public function __invoke(Attempt $attempt, array $events): array
    {
        $cycle = $attempt->entry->cycle;
        $names = [$cycle->id => "{$cycle->name} ({$cycle->key})"];
        $ids = [];
        foreach ($events as $event) {
            $ids['users'][] = $event->actor;
            foreach (self::FIELDS as $field => $table) {
                $ids[$table][] = $event->payload[$field] ?? null;
            }
        }
        foreach ($ids as $table => $of) {
            $known = array_values(array_unique(array_filter($of, self::isId(...))));
            $column = 'defects' === $table ? 'title' : 'name';
            $names += [] === $known ? [] : DB::table($table)->whereIn('id', $known)->pluck($column, 'id')->all();
        }
        ksort($names, \SORT_STRING);

        return $names;
    }

    private static function isId(mixed $value): bool
    {
        return \is_string($value) && 1 === preg_match('/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/D', $value);
    }
}
