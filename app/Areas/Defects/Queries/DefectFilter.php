<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Paging\WordFilter;
use LucidStep\Core\Defects\DefectState;

/**
 * Which defects of a project are asked for: by words, by fields, by where they were met. The one way in which lists, bulk edits and what is
 * taken out choose them.
 */
final readonly class DefectFilter
{
    /** Several of one may be given, between commas. */
    private const COLUMNS = [
        'severity' => 'severity',
        'priority' => 'priority',
        'assignee' => 'assignee_id',
        'reporter' => 'reporter_id',
        'build' => 'build_id',
        'configuration' => 'configuration_id',
        'component' => 'component',
    ];

    private const IDS = ['assignee', 'reporter', 'build', 'configuration'];

    /** A custom field, by its id. */
    public const FIELD = 'field.';

    /** Everything that narrows it, as it is called in an address. */
    public const PARAMETERS = [
        'q' => 'Words of what it says and of what was said of it, or a key',
        'state' => 'States, `open` or `closed`, between commas',
        'severity' => '`critical`, `major`, `minor`, `trivial`',
        'priority' => '`now`, `soon`, `later`, or `none`',
        'assignee' => 'Whose it is: ids, `me` or `nobody`',
        'reporter' => 'Who filed it: ids or `me`',
        'watcher' => 'Who is told of everything: an id or `me`',
        'build' => 'On which build it was met, by id, or `none`',
        'configuration' => 'On which configuration it was met, by id, or `none`',
        'component' => 'Values of the list, or `none`',
        'label' => 'Any of these labels',
        'case' => 'The case it was met in, by key',
        'cycle' => 'A cycle it was met in, by key',
        'entry' => 'An entry it was met in, by id',
        'under' => 'What it stands under, by key',
        'ids' => 'Just these, by id or key',
        'field.<id>' => 'A value of a custom field',
    ];

    /**
     * @param  array<string, string>  $asked by name, none empty
     */
    private function __construct(private Project $project, private User $me, public array $asked) {}

    /**
     * @param  array<array-key, mixed>  $input as it came in; what is no filter is left out
     */
    public static function from(Project $project, User $me, array $input): self
    {
        $asked = [];
        foreach ($input as $name => $value) {
            // In an address a dot arrives as an underscore.
            $name = (string) preg_replace('/^field_/', self::FIELD, (string) $name);
            $isKnown = isset(self::PARAMETERS[$name]) || str_starts_with($name, self::FIELD);
            if ($isKnown && \is_string($value) && '' !== trim($value)) {
                $asked[$name] = trim($value);
            }
        }

        return new self($project, $me, $asked);
    }

    /**
     * @return Builder rows of defects
     */
    public function query(): Builder
    {
        $query = DB::table('defects')->where('defects.project_id', $this->project->id);
        foreach ($this->asked as $name => $value) {
            match (true) {
                // What was said of it stands with its own words.
                'q' === $name => WordFilter::narrow($query, $value, 'defects.searched'),
                'state' === $name => $this->states($query, explode(',', $value)),
                'label' === $name => $this->labels($query, explode(',', $value)),
                'watcher' === $name => $query->whereIn(
                    'defects.id',
                    DB::table('defect_watchers')
                        ->where('user_id', 'me' === $value ? $this->me->id : self::id($value))
                        ->select('defect_id'),
                ),
                'case' === $name => $query->where(
                    'case_id',
                    DB::table('cases')
                        ->where('project_id', $this->project->id)
                        ->where('key', mb_strtoupper($value))
                        ->select('id')
                        ->limit(1),
                ),
                \in_array($name, ['cycle', 'entry'], true) => $query->whereIn('defects.id', $this->metIn($name, $value)),
                'under' === $name => $query->whereIn(
                    'defects.id',
                    DB::table('defect_relations as r')
                        ->join('defects as p', 'p.id', '=', 'r.to_id')
                        ->where('r.kind', 'under')
                        ->where('p.key', mb_strtoupper($value))
                        ->select('r.from_id'),
                ),
                'ids' === $name => $query->where(static function (Builder $q) use ($value): void {
                    $given = explode(',', $value);
                    $q->whereIn('defects.id', array_filter($given, Str::isUuid(...)))->orWhereIn('key', $given);
                }),
                str_starts_with($name, self::FIELD) => $query->whereRaw('lower(custom ->> ?) = lower(?)', [
                    substr($name, \strlen(self::FIELD)),
                    $value,
                ]),
                default => $this->column($query, $name, explode(',', $value)),
            };
        }

        return $query;
    }

    /**
     * @param  list<string>  $values states, `open` or `closed`; one that is none of these narrows nothing
     */
    private function states(Builder $query, array $values): void
    {
        $closed = DefectState::closed();
        $states = [];
        foreach ($values as $value) {
            $one = DefectState::tryFrom($value);
            array_push(
                $states,
                ...match (true) {
                    'open' === $value => array_filter(DefectState::cases(), static fn(DefectState $s): bool => !$s->isClosed()),
                    'closed' === $value => $closed,
                    null !== $one => [$one],
                    default => [],
                },
            );
        }
        if ([] !== $states) {
            $query->whereIn('state', $states);
        }
    }

    /**
     * @param  list<string>  $labels any of them
     */
    private function labels(Builder $query, array $labels): void
    {
        $query->where(static function (Builder $q) use ($labels): void {
            foreach ($labels as $label) {
                $q->orWhereRaw('labels @> ?::jsonb', [json_encode([$label], \JSON_THROW_ON_ERROR)]);
            }
        });
    }

    private function metIn(string $name, string $value): Builder
    {
        $links = DB::table('defect_links as l')->join('entries as e', 'e.id', '=', 'l.entry_id')->select('l.defect_id');

        return 'entry' === $name
            ? $links->where('e.id', self::id($value))
            : $links->join('cycles as y', 'y.id', '=', 'e.cycle_id')->where('y.key', mb_strtoupper($value));
    }

    /**
     * @param  list<string>  $values any of them; people also as `me`, and `nobody` or `none` where there is none
     */
    private function column(Builder $query, string $name, array $values): void
    {
        $column = self::COLUMNS[$name];
        $isNone = static fn(string $v): bool => \in_array($v, ['nobody', 'none'], true);
        $values = array_map(fn(string $v): string => 'me' === $v ? $this->me->id : $v, $values);
        $given = array_values(array_filter($values, static fn(string $v): bool => !$isNone($v)));
        if (\in_array($name, self::IDS, true)) {
            $given = array_values(array_filter($given, Str::isUuid(...)));
        }
        $query->where(static function (Builder $q) use ($column, $values, $given, $isNone): void {
            $q->whereIn($column, $given);
            if ([] !== array_filter($values, $isNone)) {
                'component' === $column ? $q->orWhere($column, '') : $q->orWhereNull($column);
            }
        });
    }

    /**
     * What is no id is nobody's.
     */
    private static function id(string $value): ?string
    {
        return Str::isUuid($value) ? $value : null;
    }
}
