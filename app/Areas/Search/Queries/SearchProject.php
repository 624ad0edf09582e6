<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Search\Queries;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Search\Data\GoToItem;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\PlannedCycles;
use LucidStep\App\Support\Paging\WordFilter;
use LucidStep\Core\Planning\CycleState;

/**
 * Finds whatever a project has by words of its title or by its key; a key typed as a whole stands first.
 */
final class SearchProject
{
    /** So many of each kind. */
    private const EACH = 6;

    /**
     * @param  bool  $planned whether cycles that are still being planned are among them
     *
     * @return list<GoToItem>
     */
    public function __invoke(Project $project, User $user, string $words, bool $planned): array
    {
        $items = [];
        foreach ($this->kinds($project, $user, $planned) as $kind => [$query, $text, $link]) {
            WordFilter::holds($query, $words, $text);
            foreach ($query->limit(self::EACH)->get() as $row) {
                $items[] = new GoToItem($kind, $row->key ?? '', $row->title, $row->of ?? '', $link($row));
            }
        }
        usort(
            $items,
            static fn(GoToItem $a, GoToItem $b): int => (0 === strcasecmp($b->key, $words)) <=> (0 === strcasecmp($a->key, $words)),
        );

        return $items;
    }

    /**
     * Where each kind is looked for: the rows, the folded text of each, and the address of a row.
     *
     * @return array<value-of<GoToItem::KINDS>, array{Builder, string, \Closure(\stdClass): string}>
     */
    private function kinds(Project $project, User $user, bool $planned): array
    {
        $of = static fn(string $table): Builder => DB::table($table)->where("{$table}.project_id", $project->id);
        $entries = $of('entries')
            ->join('cases', 'cases.id', '=', 'entries.case_id')
            ->join('cycles', 'cycles.id', '=', 'entries.cycle_id')
            ->leftJoin('configurations', 'configurations.id', '=', 'entries.configuration_id')
            ->where('cycles.state', CycleState::Released)
            ->orderByRaw('entries.assignee_id is distinct from ?', [$user->id])
            ->orderBy('cycles.ends_on')
            ->orderBy('entries.position')
            ->select('entries.id', 'cases.key', 'cycles.key as of')
            ->selectRaw("cases.title || coalesce(' – ' || configurations.name, '') as title");
        $people = DB::table('users')
            ->whereIn('id', DB::table('memberships')->where('project_id', $project->id)->select('user_id'))
            ->orderBy('name');

        return [
            'case' => [
                $of('cases')->whereNull('binned_at')->orderBy('number')->select('key', 'title'),
                'folded',
                static fn(\stdClass $c): string => "casebook/{$c->key}",
            ],
            'entry' => [$entries, 'cases.folded', static fn(\stdClass $e): string => "entries/{$e->id}"],
            'cycle' => [
                PlannedCycles::without($of('cycles'), $planned)->orderByDesc('number')->select('key', 'name as title'),
                "lucid_fold(key || ' ' || name)",
                static fn(\stdClass $c): string => "cycles/{$c->key}",
            ],
            'defect' => [
                $of('defects')->orderByDesc('number')->select('key', 'title'),
                'folded',
                static fn(\stdClass $d): string => "defects/{$d->key}",
            ],
            'charter' => [
                $of('charters')->whereNull('dropped_at')->orderByDesc('number')->select('key', 'title'),
                "lucid_fold(key || ' ' || title || ' ' || with_what || ' ' || to_find)",
                static fn(\stdClass $c): string => "sessions/{$c->key}",
            ],
            'requirement' => [
                $of('requirements')->whereNull('dropped_at')->orderBy('key')->select('id', 'key', 'title'),
                "lucid_fold(key || ' ' || title)",
                static fn(\stdClass $r): string => "coverage/{$r->key}",
            ],
            'routine' => [
                $of('routines')->whereNull('binned_at')->orderBy('name')->select('id', 'name as title'),
                'lucid_fold(name)',
                static fn(\stdClass $r): string => "casebook/routines/{$r->id}",
            ],
            'data table' => [
                $of('data_tables')->whereNull('binned_at')->orderBy('name')->select('id', 'name as title'),
                'lucid_fold(name)',
                static fn(\stdClass $t): string => "casebook/tables/{$t->id}",
            ],
            'suite' => [
                $of('suites')->whereNull('binned_at')->orderBy('name')->select('id', 'name as title'),
                'lucid_fold(name)',
                static fn(\stdClass $s): string => "casebook?suite={$s->id}",
            ],
            'person' => [
                $people->select('id', 'name as title'),
                'lucid_fold(name)',
                static fn(\stdClass $p): string => "casebook?owner={$p->id}",
            ],
        ];
    }
}
