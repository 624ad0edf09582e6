<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use Illuminate\Database\Query\JoinClause;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Data\TakenOut;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Record\FreeText;

/**
 * What people wrote in the setup of a project, as the log of it has it.
 */
final class SetupWords
{
    /** The texts of a line of the log: as it was and as it became. The database takes out of the same fields. */
    private const TEXTS =
        'select s.id, s.at, s.act, s.subject, s.key, t.is_new, w.text from setup_log s cross join lateral ' .
        '(values (s.old, false), (s.new, true)) t (line, is_new) cross join lateral jsonb_each(t.line) f cross join lateral ' .
        "jsonb_array_elements_text(case jsonb_typeof(f.value) when 'array' then f.value else jsonb_build_array(f.value) end) w (text) " .
        "where s.project_id = ? and f.key in ('name', 'notes', 'description', 'address', 'choices', 'email') and w.text is not null " .
        // While names are exchanged, each is called by its id for a moment.
        "and w.text <> '-' || s.key";

    /**
     * @return list<string> what was written in an act, or stood there before it
     */
    public function ofAct(Project $project, string $act): array
    {
        return self::texts('select distinct text from (' . self::TEXTS . ') t where act = ?', [$project->id, $act]);
    }

    /**
     * @return list<string> what stands in the setup now
     */
    public function thatStand(Project $project): array
    {
        // What each thing is now stands in the newest line of it.
        $newest = 'select distinct on (subject, key) id from setup_log where project_id = ? order by subject, key, id desc';

        return self::texts('select distinct text from (' . self::TEXTS . ") t where is_new and id in ({$newest})", [
            $project->id,
            $project->id,
        ]);
    }

    /**
     * @param  list<string>  $acts
     *
     * @return array<string, bool> by act: those that hold words which stand in the setup no more
     */
    public function actsWithWords(Project $project, array $acts): array
    {
        $in = implode(', ', array_fill(0, \count($acts), '?'));
        $rows =
            [] === $acts
                ? []
                : DB::select('select distinct act, text from (' . self::TEXTS . ") t where act in ({$in})", [$project->id, ...$acts]);
        $stand = [] === $rows ? [] : array_fill_keys([...$this->thatStand($project), FreeText::REMOVED, ''], true);

        return array_fill_keys(
            array_column(array_filter($rows, static fn(\stdClass $r): bool => !isset($stand[trim((string) $r->text)])), 'act'),
            true,
        );
    }

    /**
     * @param  list<string>  $acts
     *
     * @return array<string, TakenOut> by act, the newest of each
     */
    public function removedFrom(Project $project, array $acts): array
    {
        $removed = [];
        foreach (
            DB::table('setup_log')
                ->join('removals', static fn(JoinClause $j) => $j->whereRaw('removals.subject = setup_log.id::text'))
                ->leftJoin('users', 'users.id', '=', 'removals.actor_id')
                ->where('setup_log.project_id', $project->id)
                ->where('removals.project_id', $project->id)
                ->where('removals.kind', 'setup_log')
                ->whereIn('act', $acts)
                ->orderBy('removals.at')
                ->get(['act', 'users.id', 'users.name', 'removals.at', 'removals.reason'])
            as $r
        ) {
            $removed[(string) $r->act] = new TakenOut(
                null === $r->id ? null : new Person($r->id, $r->name),
                (string) UtcTime::time($r->at),
                $r->reason,
            );
        }

        return $removed;
    }

    /**
     * @param  list<string>  $texts
     *
     * @return array<int, string> when each line of the log was written that has one of them, the first first
     */
    public function linesWith(Project $project, array $texts): array
    {
        $in = implode(', ', array_fill(0, \count($texts), '?'));
        $rows = DB::select('select distinct id, at from (' . self::TEXTS . ") t where text in ({$in}) order by id", [
            $project->id,
            ...$texts,
        ]);

        return array_column($rows, 'at', 'id');
    }

    /**
     * @param  list<string>  $with
     *
     * @return list<string>
     */
    private static function texts(string $sql, array $with): array
    {
        return array_values(
            array_filter(
                array_column(DB::select($sql, $with), 'text'),
                static fn(string $t): bool => '' !== trim($t) && FreeText::REMOVED !== $t,
            ),
        );
    }
}
