<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\Project;
use LucidStep\Core\Casebook\CustomField;

/**
 * The lists that a project edits: types, priorities, types of milestones, phases, components and fields of its own. A list nobody has
 * edited is the one that
 * every project begins with.
 *
 * @phpstan-type ReasonList 'reason_pass'|'reason_fail'|'reason_blocked'|'reason_not_applicable'
 * @phpstan-type ListName ReasonList|'type'|'priority'|'milestone'|'phase'|'component'
 */
final class ProjectLists
{
    private const FIRST = [
        'type' => [
            'functional' => 'Functional',
            'regression' => 'Regression',
            'usability' => 'Usability',
            'accessibility' => 'Accessibility',
            'performance' => 'Performance',
            'security' => 'Security',
            'data' => 'Data',
        ],
        'priority' => ['critical' => 'Critical', 'high' => 'High', 'medium' => 'Medium', 'low' => 'Low'],
        'milestone' => ['release' => 'Release', 'opening' => 'Opening', 'iteration' => 'Iteration', 'audit' => 'Audit'],
        'phase' => ['smoke' => 'Smoke', 'system' => 'System', 'regression' => 'Regression', 'acceptance' => 'Acceptance'],
        'reason_pass' => [
            'with_a_remark' => 'Passed with a remark',
            'workaround' => 'Only by a workaround',
            'second_try' => 'At a second try',
        ],
        'reason_fail' => [
            'wrong_result' => 'Wrong result',
            'wrong_words' => 'Wrong words',
            'looks_wrong' => 'Looks wrong',
            'too_slow' => 'Too slow',
            'comes_and_goes' => 'Comes and goes',
        ],
        'reason_blocked' => [
            'environment_down' => 'Environment down',
            'data_missing' => 'Data missing',
            'waits_for_a_fix' => 'Waits for a fix',
            'no_access' => 'No access',
            'something_else' => 'Something else',
        ],
        'reason_not_applicable' => [
            'not_on_this_configuration' => 'Not on this configuration',
            'not_in_this_build' => 'Not in this build',
            'out_of_scope' => 'Out of scope',
        ],
    ];

    /** What a priority weighs when work is chosen (rules of the job, 6). */
    private const WEIGHTS = ['critical' => 8, 'high' => 5, 'medium' => 3, 'low' => 1];

    /** @var array<string, list<array{value: string, name: string, weight: int}>> */
    private array $lists = [];

    /** @var array<string, array<string, CustomField>> by what has them */
    private array $fields = [];

    public function __construct(private readonly Project $project) {}

    /**
     * @param  ListName  $list
     *
     * @return list<array{value: string, name: string, weight: int}> in order
     */
    public function items(string $list): array
    {
        return $this->lists[$list] ??= $this->read($list);
    }

    /**
     * @param  ListName  $list
     *
     * @return list<string>
     */
    public function values(string $list): array
    {
        return array_column($this->items($list), 'value');
    }

    /**
     * Everything that people see of the custom fields, but how often each is used.
     *
     * @param  'case'|'defect'  $subject
     *
     * @return list<array{string, string, string, list<string>, bool}>
     */
    public function fieldsAsSeen(string $subject = 'case'): array
    {
        return array_values(
            array_map(static fn(CustomField $f): array => [$f->id, $f->name, $f->kind, $f->choices, $f->required], $this->fields($subject)),
        );
    }

    /**
     * Values by name and by value, in lower case.
     *
     * @param  ListName  $list
     *
     * @return array<string, string>
     */
    public function byName(string $list): array
    {
        $by = [];
        foreach ($this->items($list) as $item) {
            $by[mb_strtolower($item['value'])] = $item['value'];
            $by[mb_strtolower($item['name'])] = $item['value'];
        }

        return $by;
    }

    /**
     * Where a priority stands in the list, from 1; after all others when it is not there any more.
     */
    public function rank(string $priority): int
    {
        $at = array_search($priority, $this->values('priority'), true);

        return false === $at ? \count($this->values('priority')) + 1 : (int) $at + 1;
    }

    /**
     * The priority of a case nobody has said one for.
     */
    public function usualPriority(): string
    {
        $values = $this->values('priority');

        return \in_array('medium', $values, true) ? 'medium' : $values[intdiv(\count($values), 2)];
    }

    public function usualType(): string
    {
        $values = $this->values('type');

        return \in_array('functional', $values, true) ? 'functional' : $values[0];
    }

    /**
     * @param  'case'|'defect'  $subject what has them
     *
     * @return array<string, CustomField> by id, in order
     */
    public function fields(string $subject = 'case'): array
    {
        if (!isset($this->fields[$subject])) {
            $this->fields[$subject] = [];
            $rows = DB::table('custom_fields')->where('project_id', $this->project->id)->where('subject', $subject)->orderBy('position');
            foreach ($rows->get() as $row) {
                $this->fields[$subject][$row->id] = new CustomField(
                    $row->id,
                    $row->name,
                    $row->kind,
                    json_decode($row->choices, true),
                    $row->required,
                );
            }
        }

        return $this->fields[$subject];
    }

    /**
     * Replaces a list.
     *
     * @param  ListName  $list
     * @param  list<array{value: string, name: string, weight: int}>  $items
     */
    public function write(string $list, array $items): void
    {
        DB::table('list_items')->where('project_id', $this->project->id)->where('list', $list)->delete();
        DB::table('list_items')->insert(
            array_map(
                fn(array $item, int $at): array => [
                    'id' => (string) Str::uuid7(),
                    'project_id' => $this->project->id,
                    'list' => $list,
                    ...$item,
                    'position' => $at,
                ],
                $items,
                array_keys($items),
            ),
        );
        unset($this->lists[$list]);
    }

    /**
     * Adds types that are not there; returns the values of all of them.
     *
     * @param  list<string>  $names
     */
    public function addTypes(array $names): void
    {
        $items = $this->items('type');
        $known = $this->byName('type');
        foreach ($names as $name) {
            $value = mb_substr(mb_strtolower(trim($name)), 0, 60);
            if ('' !== $value && !isset($known[$value])) {
                $known[$value] = $value;
                $items[] = ['value' => $value, 'name' => mb_strtoupper(mb_substr($value, 0, 1)) . mb_substr($value, 1), 'weight' => 1];
            }
        }
        if (\count($items) > \count($this->items('type'))) {
            $this->write('type', $items);
        }
    }

    /**
     * @param  ListName  $list
     *
     * @return list<array{value: string, name: string, weight: int}>
     */
    private function read(string $list): array
    {
        $items = [];
        foreach (
            DB::table('list_items')->where('project_id', $this->project->id)->where('list', $list)->orderBy('position')->get()
            as $row
        ) {
            $items[] = ['value' => $row->value, 'name' => $row->name, 'weight' => $row->weight];
        }

        return [] === $items ? self::given($list) : $items;
    }

    /**
     * What a list has before anybody writes it.
     *
     * @return list<array{value: string, name: string, weight: int}>
     */
    public static function given(string $list): array
    {
        $items = [];
        foreach (self::FIRST[$list] ?? [] as $value => $name) {
            $items[] = ['value' => $value, 'name' => $name, 'weight' => self::WEIGHTS[$value] ?? 1];
        }

        return $items;
    }
}
