<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Areas\Setup\Queries\ReadProjectSetup;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\InUse;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\Core\Casebook\CustomField;
use LucidStep\Core\Exchange\FieldReader;
use LucidStep\Core\Text\ItemList;

/**
 * Edits the lists of a project: types, priorities, labels and fields of its own. What cases have is not taken out
 * of a list, but shown how often, and may be merged into another.
 *
 * @phpstan-import-type ListName from ProjectLists
 */
final readonly class SaveLists
{
    public const MOST_ITEMS = 100;

    public const MOST_FIELDS = 40;

    public const MOST_LABELS = 10_000;

    public function __construct(private PublishChange $announce, private ReadProjectSetup $setup) {}

    /**
     * @param  ListName  $list
     * @param  list<array{value?: ?string, name: string, weight?: ?int}>  $items those without a value are new; the order counts
     * @param  ?string  $seen  the state that the person saw ({@see Seen})
     * @param  list<string>  $former values that stood there once and come back as they were
     */
    public function items(Project $project, string $list, array $items, ?string $seen, array $former = []): void
    {
        DB::table('projects')->where('id', $project->id)->lockForUpdate()->first();
        $lists = new ProjectLists($project);
        Seen::check($seen, $lists->items($list), 'this list');
        $known = $lists->values($list);
        $names = $values = $out = [];
        foreach ($items as $i => $item) {
            $name = trim($item['name']);
            $value = $item['value'] ?? null;
            if (null === $value || !\in_array($value, [...$known, ...$former], true)) {
                $value = trim(mb_substr((string) preg_replace('/[^\p{L}\p{N}]+/u', '_', mb_strtolower($name)), 0, 50), '_');
                $value =
                    '' === $value || \in_array($value, [...$known, ...$values], true) ? mb_substr($value, 0, 40) . '_' . ($i + 1) : $value;
            }
            if ('' === $name || isset($names[mb_strtolower($name)])) {
                throw ValidationException::withMessages([
                    "items.{$i}.name" => '' === $name ? 'A name is needed.' : "\"{$name}\" stands there twice.",
                ]);
            }
            $names[mb_strtolower($name)] = true;
            $values[] = $value;
            $out[] = ['value' => $value, 'name' => $name, 'weight' => max(1, min(100, (int) ($item['weight'] ?? 1)))];
        }
        if ([] === $out && 'component' !== $list) {
            throw ValidationException::withMessages(['items' => 'At least one must stay.']);
        }
        $gone = array_values(array_diff($known, $values));
        if (\in_array($list, ['reason_pass', 'reason_fail', 'reason_blocked', 'reason_not_applicable'], true)) {
            // Results keep the words themselves.
            $lists->write($list, $out);

            return;
        }
        [$table, $column, $one, $many] = match ($list) {
            'type' => ['cases', 'type', 'case', 'cases'],
            'priority' => ['cases', 'priority', 'case', 'cases'],
            'milestone' => ['milestones', 'type', 'milestone', 'milestones'],
            'phase' => ['cycles', 'phase', 'cycle', 'cycles'],
            'component' => ['defects', 'component', 'defect', 'defects'],
        };
        $used = DB::table($table)
            ->where('project_id', $project->id)
            ->whereIn($column, $gone)
            ->groupBy($column)
            ->pluck(DB::raw('count(*) as n'), $column)
            ->all();
        if ([] !== $used) {
            $of = array_column($lists->items($list), 'name', 'value');
            throw InUse::because(
                implode(
                    ' ',
                    array_map(
                        static fn(string $v, mixed $n): string => \sprintf(
                            '"%s" is used by %d %s.',
                            $of[$v] ?? $v,
                            $n,
                            1 === (int) $n ? $one : $many,
                        ),
                        array_keys($used),
                        $used,
                    ),
                ) .
                    ' Change those first' .
                    ('cases' === $table ? ': filter the casebook by it, choose all and edit.' : '.'),
                ['used' => $used],
            );
        }
        $lists->write($list, $out);
        if ('priority' === $list) {
            foreach ($values as $rank => $value) {
                DB::table('cases')
                    ->where('project_id', $project->id)
                    ->where('priority', $value)
                    ->where('priority_rank', '<>', $rank + 1)
                    ->update(['priority_rank' => $rank + 1]);
            }
        }
        ($this->announce)($project->id, 'case', $project->id);
    }

    /**
     * @param  list<string>  $names new ones; those that are there stay as they are
     *
     * @return int how many were new
     */
    public function addLabels(Project $project, array $names): int
    {
        $names = ItemList::names($names);
        foreach ($names as $name) {
            if (mb_strlen($name) > FieldReader::LONGEST_LABEL) {
                throw ValidationException::withMessages([
                    'names' => \sprintf(
                        '"%s" is longer than %d characters. None was added.',
                        mb_strimwidth($name, 0, 40, '…'),
                        FieldReader::LONGEST_LABEL,
                    ),
                ]);
            }
        }
        $there = DB::table('labels')->where('project_id', $project->id)->count();
        if ($there + \count($names) > self::MOST_LABELS) {
            throw ValidationException::withMessages([
                'names' => \sprintf(
                    'A project keeps at most %s labels; there are %s now. None was added.',
                    number_format(self::MOST_LABELS),
                    number_format($there),
                ),
            ]);
        }
        $added = 0;
        foreach (array_chunk($names, 1000) as $some) {
            $added += DB::table('labels')->insertOrIgnore(
                array_map(static fn(string $n): array => ['project_id' => $project->id, 'name' => $n], $some),
            );
        }
        ($this->announce)($project->id, 'case', $project->id);

        return $added;
    }

    /**
     * Gives a label another name on every case and defect; one that is there already takes it in. An empty name takes it off all.
     *
     * @return int on how many it changed
     */
    public function renameLabel(Project $project, string $from, string $to): int
    {
        $to = ItemList::names([$to])[0] ?? '';
        if (mb_strlen($to) > FieldReader::LONGEST_LABEL) {
            throw ValidationException::withMessages(['to' => \sprintf('At most %d characters.', FieldReader::LONGEST_LABEL)]);
        }
        if (0 === DB::table('labels')->where('project_id', $project->id)->where('name', $from)->delete()) {
            throw ValidationException::withMessages(['from' => 'This label is not there any more.']);
        }
        if ('' !== $to) {
            DB::table('labels')->insertOrIgnore(['project_id' => $project->id, 'name' => $to]);
            $to = (string) DB::table('labels')
                ->where('project_id', $project->id)
                ->whereRaw('lower(name) = lower(?)', [$to])
                ->value('name');
        }
        $changed = 0;
        foreach (['cases' => 'revision', 'defects' => 'version'] as $table => $counter) {
            $changed += DB::update(
                "update {$table} set labels = (select coalesce(jsonb_agg(distinct x), '[]') from (select case when l = ? " .
                    "then ? else l end as x from jsonb_array_elements_text(labels) l) n where x <> ''), {$counter} = {$counter} " .
                    '+ 1 where project_id = ? and labels @> ?::jsonb',
                [$from, $to, $project->id, json_encode([$from], \JSON_THROW_ON_ERROR)],
            );
        }
        ($this->announce)($project->id, 'case', $project->id);

        return $changed;
    }

    /**
     * @param  list<array{id?: ?string, name: string, kind: string, choices?: list<string>, required?: bool}>  $fields the
     *     order counts; those that are left out go
     * @param  ?string  $saw the state that the person saw ({@see Seen})
     * @param  list<string>  $former ids of those that come back
     * @param  'case'|'defect'  $subject what has them
     */
    public function fields(Project $project, array $fields, ?string $saw, array $former = [], string $subject = 'case'): void
    {
        DB::table('projects')->where('id', $project->id)->lockForUpdate()->first();
        $lists = new ProjectLists($project);
        Seen::check($saw, $lists->fieldsAsSeen($subject), 'the fields');
        $before = $lists->fields($subject);
        $uses = $this->setup->fields($project, $subject);
        [$many, $where] =
            'case' === $subject ? ['cases', 'filter the casebook by it, choose all and edit'] : ['defects', 'filter the defects by it'];
        $seen = $rows = [];
        foreach ($fields as $i => $field) {
            $name = trim($field['name']);
            $choices = array_values(
                array_unique(array_filter(array_map(trim(...), $field['choices'] ?? []), static fn(string $c): bool => '' !== $c)),
            );
            $id = $field['id'] ?? null;
            $old = null === $id ? null : $before[$id] ?? null;
            $fault = match (true) {
                '' === $name => ['name', 'A name is needed.'],
                isset($seen[mb_strtolower($name)]) => ['name', "\"{$name}\" stands there twice."],
                !\in_array($field['kind'], CustomField::KINDS, true) => ['kind', 'Choose a kind.'],
                'choice' === $field['kind'] && [] === $choices => ['choices', 'A choice needs something to choose from.'],
                null !== $old && $old->kind !== $field['kind'] && isset($uses[$old->id]) => [
                    'kind',
                    \sprintf('%d %s have a value of the old kind. Add another field instead.', $uses[$old->id], $many),
                ],
                default => null,
            };
            if (null !== $fault) {
                throw ValidationException::withMessages(["fields.{$i}.{$fault[0]}" => $fault[1]]);
            }
            $seen[mb_strtolower($name)] = true;
            $rows[] = [
                'id' => $old->id ?? (\in_array($id, $former, true) ? $id : (string) Str::uuid7()),
                'project_id' => $project->id,
                'name' => $name,
                'kind' => $field['kind'],
                'choices' => json_encode('choice' === $field['kind'] ? $choices : [], \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE),
                // A defect is filed in the middle of a walk, also offline: nothing of it can be refused for want of a field.
                'required' => 'case' === $subject && (bool) ($field['required'] ?? false),
                'subject' => $subject,
                'position' => $i,
            ];
        }
        foreach (array_diff_key($before, array_flip(array_column($rows, 'id'))) as $id => $gone) {
            if (isset($uses[$id])) {
                throw InUse::because(
                    \sprintf('"%s" is filled in on %d %s. Empty it there first: %s.', $gone->name, $uses[$id], $many, $where),
                );
            }
        }
        DB::table('custom_fields')->where('project_id', $project->id)->where('subject', $subject)->delete();
        DB::table('custom_fields')->insert($rows);
        ($this->announce)($project->id, $subject, $project->id);
    }
}
