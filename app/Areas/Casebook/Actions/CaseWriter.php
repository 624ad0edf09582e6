<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Keys\NextKey;
use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\Review;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Verdict\Policies;

/**
 * Writes cases: new ones in batches, changes one by one. Every change leaves a line in the case's log, every change
 * of its text a version. To be used within a transaction and ended with {@see flush()}.
 */
final class CaseWriter
{
    /** How much of a case's text can be found by its words. */
    private const MOST_WORDS = 100_000;

    private const BATCH = 200;

    /** @var array<string, list<array<string, mixed>>> rows by table, in the order in which tables are written */
    private array $rows = ['cases' => [], 'case_versions' => [], 'steps' => [], 'case_log' => [], 'case_requirements' => []];

    /** @var array<string, true> */
    private array $newLabels = [];

    /** @var array<string, string> labels by lower case */
    private array $labels;

    /** @var array<string, string> names by id */
    private array $routines;

    private float $position;

    private int $next = 0;

    private int $reservedTo = -1;

    private bool $changed = false;

    private readonly ProjectLists $lists;

    private readonly Policies $policies;

    public function __construct(
        private readonly Project $project,
        private readonly User $author,
        private readonly NextKey $nextKey,
        private readonly PublishChange $announce,
        private readonly Approval $approval,
        private readonly int $expected = 1,
    ) {
        $this->lists = new ProjectLists($project);
        $this->policies = Policies::fromArray($project->policies);
        $this->labels = [];
        foreach (DB::table('labels')->where('project_id', $project->id)->pluck('name') as $name) {
            $this->labels[mb_strtolower((string) $name)] = (string) $name;
        }
        $this->routines = array_map(strval(...), DB::table('routines')->where('project_id', $project->id)->pluck('name', 'id')->all());
        $this->position = (float) DB::table('cases')->where('project_id', $project->id)->max('position');
    }

    /**
     * @param  string  $kind what the log says: `made`, `imported`, `copied`
     * @param  array<string, mixed>  $note
     *
     *
     * @throws ValidationException when it is to be approved and may not be
     * @return array{id: string, key: string}
     */
    public function add(CaseText $text, CaseFields $fields, string $kind = 'made', array $note = [], ?float $position = null): array
    {
        $this->refuse($this->approval->refusals($fields->state, $text, null));
        if ($this->next > $this->reservedTo) {
            $many = max(1, min(self::BATCH, $this->expected));
            $this->next = $this->nextKey->reserve($this->project, 'case', $many);
            $this->reservedTo = $this->next + $many - 1;
        }
        $number = $this->next++;
        $key = "{$this->project->code}-C{$number}";
        $id = (string) Str::uuid7();
        $version = (string) Str::uuid7();
        $now = Carbon::now();
        $this->rows['cases'][] = [
            'id' => $id,
            'project_id' => $this->project->id,
            'number' => $number,
            'key' => $key,
            'version_id' => $version,
            'position' => $position ?? ++$this->position,
            'approved_version_id' => CaseState::Approved === $fields->state ? $version : null,
            'created_at' => $now,
            'updated_at' => $now,
            ...$this->columns($text, $fields),
        ];
        $this->version($version, $id, 1, $text, $now);
        $this->log($id, $kind, $note, 1);
        foreach ($fields->requirements as $requirement) {
            $this->rows['case_requirements'][] = ['case_id' => $id, 'requirement_id' => $requirement];
        }
        if (\count($this->rows['cases']) >= self::BATCH) {
            $this->flush();
        }

        return ['id' => $id, 'key' => $key];
    }

    /**
     * @param  TestCase  $case locked, with requirements and, for a change of text, version and its steps loaded; left as it then is
     * @param  ?CaseText  $text null when only fields change
     * @param  string  $kind what the log says: `edited`, `imported`, `brought_back`, …
     * @param  array<string, mixed>  $note
     *
     *
     * @throws ValidationException when it is to be approved and may not be
     * @return bool whether anything changed
     */
    public function change(TestCase $case, ?CaseText $text, CaseFields $fields, string $kind = 'edited', array $note = []): bool
    {
        $before = CaseFields::of($case);
        $textChanged = null !== $text && !$case->version->text()->equals($text);
        if ($textChanged && $fields->state === $case->state) {
            $fields = $fields->with(['state' => Review::afterEdit($case->state, $this->policies->onlyApprovedCases)]);
        }
        if ($fields->state !== $case->state) {
            $this->refuse($this->approval->refusals($fields->state, $text ?? $case->loadMissing('version.steps')->version->text(), $case));
        }
        $fields = $fields->with(['labels' => $this->spelt($fields->labels)]);
        $changes = $before->changesTo($fields);
        if (!$textChanged && [] === $changes) {
            return false;
        }
        $now = Carbon::now();
        $number = null;
        if ($textChanged) {
            $number = $case->version->number + 1;
            $id = (string) Str::uuid7();
            $this->version($id, $case->id, $number, $text, $now);
            $this->flush();
            $case->version_id = $id;
        }
        $case->forceFill(null === $text ? $this->fieldValues($fields) : $this->values($text, $fields));
        if (
            CaseState::Approved === $fields->state &&
            (CaseState::Approved !== $before->state || ($textChanged && !$this->policies->onlyApprovedCases))
        ) {
            $case->approved_version_id = $case->version_id;
        }
        $case->revision++;
        $case->updated_at = $now;
        $case->save();
        if (isset($changes['requirements'])) {
            DB::table('case_requirements')->where('case_id', $case->id)->delete();
            DB::table('case_requirements')->insert(
                array_map(static fn(string $r): array => ['case_id' => $case->id, 'requirement_id' => $r], $fields->requirements),
            );
        }
        if ($textChanged || isset($changes['requirements'])) {
            $case->unsetRelations();
        }
        $this->log($case->id, $kind, [...$note, ...[] === $changes ? [] : ['fields' => $changes]], $number);

        return $this->changed = true;
    }

    /**
     * @param  list<string>  $why
     *
     * @throws ValidationException when anything speaks against it
     */
    private function refuse(array $why): void
    {
        if ([] !== $why) {
            throw ValidationException::withMessages(['state' => $why]);
        }
    }

    /**
     * A line in the log of a case that says something else than that it was written.
     *
     * @param  array<string, mixed>  $payload
     */
    public function log(string $case, string $kind, array $payload, ?int $version = null): void
    {
        $this->rows['case_log'][] = [
            'id' => (string) Str::uuid7(),
            'case_id' => $case,
            'actor_id' => $this->author->id,
            'kind' => $kind,
            'payload' => json_encode((object) $payload, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE),
            'version' => $version,
            'at' => Carbon::now(),
        ];
        $this->changed = true;
    }

    /**
     * Writes what is left.
     */
    public function flush(): void
    {
        foreach ($this->rows as $table => $rows) {
            foreach (array_chunk($rows, 1000) as $some) {
                DB::table($table)->insert($some);
            }
            $this->rows[$table] = [];
        }
        if ([] !== $this->newLabels) {
            foreach (array_chunk(array_keys($this->newLabels), 1000) as $some) {
                DB::table('labels')->insertOrIgnore(
                    array_map(fn(int|string $n): array => ['project_id' => $this->project->id, 'name' => (string) $n], $some),
                );
            }
            $this->newLabels = [];
        }
    }

    /**
     * Writes what is left and tells the screens.
     */
    public function end(): void
    {
        $this->flush();
        if ($this->changed) {
            ($this->announce)($this->project->id, 'case', $this->project->id);
            $this->changed = false;
        }
    }

    private function version(string $id, string $case, int $number, CaseText $text, Carbon $now): void
    {
        $this->rows['case_versions'][] = [
            'id' => $id,
            'case_id' => $case,
            'number' => $number,
            'title' => $text->title,
            'objective' => $text->objective,
            'preconditions' => $text->preconditions,
            'postconditions' => $text->postconditions,
            'table_id' => $text->table,
            'files' => json_encode($text->files, \JSON_THROW_ON_ERROR),
            'author_id' => $this->author->id,
            'created_at' => $now,
        ];
        foreach ($text->steps as $at => $step) {
            $this->rows['steps'][] = ['case_version_id' => $id, ...self::stepRow($step, $at + 1)];
        }
    }

    /**
     * @return array<string, mixed>
     */
    public static function stepRow(Step $step, int $position): array
    {
        return [
            'id' => (string) Str::uuid7(),
            'position' => $position,
            'action' => $step->action,
            'data' => $step->data,
            'expected' => $step->expected,
            'routine_id' => $step->routine,
            'values' => json_encode((object) $step->values, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE),
            'files' => json_encode($step->files, \JSON_THROW_ON_ERROR),
        ];
    }

    /**
     * @return array<string, mixed> as the database takes them
     */
    private function columns(CaseText $text, CaseFields $fields): array
    {
        $values = $this->values($text, $fields->with(['labels' => $this->spelt($fields->labels)]));

        return [
            ...$values,
            'labels' => json_encode($values['labels'], \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE),
            'custom' => json_encode((object) $values['custom'], \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE),
        ];
    }

    /**
     * @return array<string, mixed> as the model takes them
     */
    private function values(CaseText $text, CaseFields $fields): array
    {
        $words = [$text->objective, $text->preconditions, $text->postconditions];
        foreach ($text->steps as $step) {
            array_push(
                $words,
                $step->action,
                $step->data,
                $step->expected,
                null === $step->routine ? '' : $this->routines[$step->routine] ?? '',
                ...array_values($step->values),
            );
        }

        return [
            ...$this->fieldValues($fields),
            'title' => $text->title,
            'table_id' => $text->table,
            'steps_count' => \count($text->steps),
            'words' => mb_strcut(implode("\n", array_filter($words, static fn(string $w): bool => '' !== $w)), 0, self::MOST_WORDS),
        ];
    }

    /**
     * @return array<string, mixed>
     */
    private function fieldValues(CaseFields $fields): array
    {
        $values = get_object_vars($fields);
        unset($values['requirements']);

        return [...$values, 'priority_rank' => $this->lists->rank($fields->priority)];
    }

    /**
     * Labels as they are spelt already; new ones are kept in mind.
     *
     * @param  list<string>  $labels
     *
     * @return list<string>
     */
    private function spelt(array $labels): array
    {
        $out = [];
        foreach ($labels as $label) {
            $lower = mb_strtolower($label);
            if (!isset($this->labels[$lower])) {
                $this->labels[$lower] = $label;
                $this->newLabels[$label] = true;
            }
            $out[$lower] = $this->labels[$lower];
        }

        return array_values($out);
    }
}
