<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Setup\Data\SetupAct;
use LucidStep\App\Areas\Setup\Data\SetupLog;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Data\Person;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Planning\SetupChange;
use LucidStep\Core\Planning\SetupUndo;

/**
 * Reads what the database logged of the setup: by act, each thing as it was before and after.
 */
final readonly class ReadSetupLog
{
    /** So many acts at once, and so many lines of one of them. */
    public const ACTS = 40;

    public const LINES = 40;

    public function __construct(private SetupWords $words, private SetupChanges $changes) {}

    /**
     * @param  bool  $mayRemove whether whoever reads may take words out
     * @param  list<Permission>  $may what they may
     * @param  ?int  $after the `next` of the window before
     */
    public function __invoke(Project $project, bool $mayRemove, array $may, ?int $after = null): SetupLog
    {
        // An act stands where its last change does.
        $acts = DB::select(
            'select id, at, actor_id, act from setup_log s where project_id = ? and id < ? and not exists ' .
                '(select from setup_log later where later.act = s.act and later.id > s.id) order by id desc limit ?',
            [$project->id, $after ?? \PHP_INT_MAX, self::ACTS + 1],
        );
        $next = \count($acts) > self::ACTS ? (string) $acts[self::ACTS - 1]->id : null;
        $acts = \array_slice($acts, 0, self::ACTS);
        $names = $this->names($project);
        $people = User::query()
            ->whereKey(array_filter(array_column($acts, 'actor_id')))
            ->get()
            ->keyBy('id');
        $ids = array_values(array_map(strval(...), array_column($acts, 'act')));
        $changes = $this->changes->of($project, $ids);
        $now = $this->changes->now($project, $ids);
        $words = $mayRemove ? $this->words->actsWithWords($project, $ids) : [];
        $removed = $this->words->removedFrom($project, $ids);
        $items = [];
        foreach ($acts as $act) {
            $lines = self::lines($changes[$act->act] ?? [], $names);
            $by = $people->get((string) $act->actor_id);
            $undo = new SetupUndo($changes[$act->act] ?? []);
            $mayUndo = !isset($removed[$act->act]) && !$undo->isElsewhere() && \in_array($undo->needs(), $may, true);
            // What was changed and changed back in one act is nothing to tell.
            if ([] !== $lines) {
                $items[] = new SetupAct(
                    (int) $act->id,
                    Carbon::parse($act->at)->toIso8601ZuluString(),
                    null === $by ? null : Person::from($by),
                    $lines,
                    isset($words[$act->act]),
                    $removed[$act->act] ?? null,
                    $mayUndo && !$undo->isOvertaken($now),
                );
            }
        }

        return new SetupLog($items, $next);
    }

    /**
     * @param  list<SetupChange>  $changes
     * @param  array<string, string>  $names
     *
     * @return list<string>
     */
    private static function lines(array $changes, array $names): array
    {
        $lines = SetupChange::tell($changes, $names);
        $more = \count($lines) - self::LINES;

        return $more > 0 ? [...\array_slice($lines, 0, self::LINES), "and {$more} more"] : $lines;
    }

    /**
     * @return array<string, string> what ids are called: people, releases, builds and axes, those that are gone too
     */
    private function names(Project $project): array
    {
        $names = [];
        foreach (
            DB::select(
                "select key as id, coalesce(new, old) ->> 'name' as name from setup_log where project_id = ? and subject in " .
                    "('releases', 'builds', 'axes') and new is null union all " .
                    'select id::text, name from releases where project_id = ? union all ' .
                    'select id::text, name from builds where project_id = ? union all ' .
                    'select id::text, name from axes where project_id = ? union all ' .
                    'select u.id::text, u.name from users u join memberships m on m.user_id = u.id where m.project_id = ?',
                array_fill(0, 5, $project->id),
            )
            as $row
        ) {
            $names[(string) $row->id] = (string) $row->name;
        }

        return $names;
    }
}
