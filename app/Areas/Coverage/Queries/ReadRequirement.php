<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Coverage\Data\RequirementCase;
use LucidStep\App\Areas\Coverage\Data\RequirementChange;
use LucidStep\App\Areas\Coverage\Data\RequirementDetail;
use LucidStep\App\Areas\Coverage\Data\RequirementName;
use LucidStep\App\Models\Requirement;
use LucidStep\App\Support\Data\ChangeOfField;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Coverage\CoverageState;
use LucidStep\Core\Defects\DefectState;

/**
 * Reads a requirement with its words, its cases and what became of it.
 */
final class ReadRequirement
{
    /** As much of its history is shown. */
    private const MOST = 200;

    /**
     * @param  bool  $seesDefects whether whoever asks may know of defects
     */
    public function __invoke(Requirement $requirement, CoverageLens $lens, bool $seesDefects = true): RequirementDetail
    {
        return new RequirementDetail(
            $requirement->id,
            $requirement->key,
            $requirement->title,
            $requirement->text,
            $requirement->parent_id,
            $requirement->external_id,
            (object) $requirement->details,
            $requirement->revision,
            null !== $requirement->dropped_at,
            $this->above($requirement),
            $this->cases($requirement, $lens, $seesDefects),
            $this->history($requirement),
        );
    }

    /**
     * @return list<RequirementName> the topmost first
     */
    private function above(Requirement $requirement): array
    {
        return array_values(
            array_map(
                static fn(\stdClass $r): RequirementName => new RequirementName($r->id, $r->key, $r->title),
                DB::select(
                    'with recursive up as (select id, key, title, parent_id, 1 as level from requirements where id = ? union all ' .
                        'select r.id, r.key, r.title, r.parent_id, level + 1 from requirements r join up on r.id = up.parent_id) ' .
                        'select id, key, title from up order by level desc',
                    [$requirement->parent_id],
                ),
            ),
        );
    }

    /**
     * @return list<RequirementCase>
     */
    private function cases(Requirement $requirement, CoverageLens $lens, bool $seesDefects): array
    {
        $closed = array_map(static fn(DefectState $s): string => $s->value, DefectState::closed());
        $held = null === $lens->at ? 'k.parted_at is null' : CellSource::held('k', 'linked_at', 'parted_at');
        $open = null === $lens->at ? 'd.state <> all (cast(:closed as text[]))' : RequirementSource::WAS_OPEN;
        // Of the past nobody knows which words were looked at.
        $late = null === $lens->at ? 'coalesce(r.seen_words < :words, false)' : 'false';
        $cases = DB::select(
            'select c.id, c.key, c.title, c.state, c.last_walked_at, ' .
                "{$late} as late, " .
                '(select count(distinct d.id) from entries e join defect_links l on l.entry_id = e.id join defects d on ' .
                "d.id = l.defect_id where e.case_id = c.id and {$open}) as defects " .
                'from requirement_links k join cases c on c.id = k.case_id left join case_requirements r on r.case_id = k.case_id and ' .
                "r.requirement_id = k.requirement_id where k.requirement_id = :requirement and c.binned_at is null and {$held} " .
                'order by c.number',
            [
                'closed' => '{' . implode(',', $closed) . '}',
                'requirement' => $requirement->id,
                ...null === $lens->at ? ['words' => $requirement->words_revision] : ['at' => $lens->at],
            ],
        );
        $ids = array_column($cases, 'id');
        $outcomes = CaseOutcomes::of($requirement->project_id, $lens, $ids);
        $unsteady = UnsteadyCases::of($requirement->project_id, $lens, $ids);

        return array_values(
            array_map(
                static fn(\stdClass $c): RequirementCase => new RequirementCase(
                    $c->id,
                    $c->key,
                    $c->title,
                    isset($outcomes[$c->id]) ? $outcomes[$c->id]['outcome']->state->value : CoverageState::NotRun->value,
                    $outcomes[$c->id]['cells'] ?? 0,
                    $outcomes[$c->id]['walked'] ?? 0,
                    $c->late,
                    'retired' === $c->state,
                    $seesDefects ? $c->defects : 0,
                    isset($unsteady[$c->id]),
                    UtcTime::time($c->last_walked_at),
                ),
                $cases,
            ),
        );
    }

    /**
     * @return list<RequirementChange> the newest first
     */
    private function history(Requirement $requirement): array
    {
        $found = DB::select(
            'select * from (select l.kind, l.at, l.changes::text as changes, l.import_id is not null as imported, u.id, u.name, ' .
                'l.id as n from requirement_log l join users u on u.id = l.actor_id where l.requirement_id = ? union all ' .
                "select 'linked', max(k.linked_at), json_build_object('cases', json_build_array('', string_agg(c.key, ', ' order by " .
                'c.number)))::text, false, null, null, null from requirement_links k join cases c on c.id = k.case_id where ' .
                "k.requirement_id = ? group by date_trunc('minute', k.linked_at) union all select 'parted', max(k.parted_at), " .
                "json_build_object('cases', json_build_array(string_agg(c.key, ', ' order by c.number), ''))::text, false, null, null, " .
                'null from requirement_links k join cases c on c.id = k.case_id where k.requirement_id = ? and k.parted_at is not null ' .
                "group by date_trunc('minute', k.parted_at)) h order by at desc, n desc limit ?",
            [$requirement->id, $requirement->id, $requirement->id, self::MOST],
        );
        $names = $this->names($requirement->project_id);

        return array_values(
            array_map(
                static fn(\stdClass $h): RequirementChange => new RequirementChange(
                    $h->kind,
                    (string) UtcTime::time($h->at),
                    null === $h->id ? null : new Person($h->id, $h->name),
                    $h->imported,
                    self::changes((array) json_decode($h->changes, true), $names),
                ),
                $found,
            ),
        );
    }

    /**
     * @return array<string, string> keys of requirements by id
     */
    private function names(string $project): array
    {
        return array_map(strval(...), DB::table('requirements')->where('project_id', $project)->pluck('key', 'id')->all());
    }

    /**
     * @param  array<array-key, mixed>  $changes
     * @param  array<string, string>  $names
     *
     * @return list<ChangeOfField>
     */
    private static function changes(array $changes, array $names): array
    {
        $word = static fn(mixed $value): string => match (true) {
            \is_array($value) => implode("\n", array_map(static fn($k, $v): string => "{$k}: {$v}", array_keys($value), $value)),
            default => $names[(string) $value] ?? (string) $value,
        };
        $found = [];
        // The database keeps fields in an order of its own.
        $order = array_flip(['title', 'text', 'external_id', 'details', 'parent_id', 'case', 'cases']);
        uksort($changes, static fn(int|string $a, int|string $b): int => ($order[$a] ?? 99) <=> ($order[$b] ?? 99));
        foreach (array_diff_key($changes, ['before_id' => true]) as $field => $change) {
            [$from, $to] = array_values((array) $change) + ['', ''];
            $found[] = new ChangeOfField((string) $field, $word($from), $word($to));
        }

        return $found;
    }
}
