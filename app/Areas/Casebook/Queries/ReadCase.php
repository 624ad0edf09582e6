<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Queries;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Data\CaseComparison;
use LucidStep\App\Areas\Casebook\Data\CaseDetail;
use LucidStep\App\Areas\Casebook\Data\CaseHistory;
use LucidStep\App\Areas\Casebook\Data\CaseLine;
use LucidStep\App\Areas\Casebook\Data\CaseResult;
use LucidStep\App\Areas\Casebook\Data\CaseWalk;
use LucidStep\App\Areas\Casebook\Data\DiffPart;
use LucidStep\App\Areas\Casebook\Data\FieldDiff;
use LucidStep\App\Areas\Casebook\Data\LogLine;
use LucidStep\App\Areas\Casebook\Data\RequirementLine;
use LucidStep\App\Areas\Casebook\Data\StepDiff;
use LucidStep\App\Areas\Casebook\Data\VersionLine;
use LucidStep\App\Areas\Defects\Queries\DefectLines;
use LucidStep\App\Models\CaseMessage;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\MessageState;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\HiddenNames;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\PlannedCycles;
use LucidStep\App\Support\Data\ChangeOfField;
use LucidStep\App\Support\Data\Person;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Casebook\Comparison;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Text\Difference;
use LucidStep\Core\Text\ItemList;

/**
 * Reads one case: as it is, as it was, and how it went.
 */
final readonly class ReadCase
{
    /** Somebody who has not been heard of for so long has left the page. */
    private const PRESENT_SECONDS = 45;

    public function __construct(private CheckCase $check, private Memberships $memberships) {}

    public function detail(TestCase $case, User $user, Role $role): CaseDetail
    {
        $case->load('owner', 'version.steps', 'requirements');
        $text = $case->version->text();
        $book = RoutineBook::with($case->project_id, CheckCase::uses($text->steps));
        $routines = [];
        foreach (array_unique(CheckCase::uses($text->steps)) as $id) {
            $one = $book->find($id);
            if (null !== $one) {
                $routines[] = ResourceMapper::routine($one);
            }
        }
        $walks = Entry::query()
            ->where('case_id', $case->id)
            ->whereIn(
                'cycle_id',
                PlannedCycles::without(DB::table('cycles'), $role->leads())->where('project_id', $case->project_id)->select('id'),
            )
            ->with('cycle', 'configuration')
            ->orderByDesc('id')
            ->limit(20)
            ->get();
        $defects = Defect::query()
            ->where('project_id', $case->project_id)
            ->where(
                static fn($q) => $q
                    ->where('case_id', $case->id)
                    ->orWhereHas('links.entry', static fn($e) => $e->where('case_id', $case->id)),
            )
            ->orderByDesc('number')
            ->limit(50)
            ->pluck('id')
            ->all();
        $messages = CaseMessage::query()
            ->where('case_id', $case->id)
            ->with('case', 'author', 'answeredBy', 'removedBy')
            ->orderByRaw('state = ? desc, id desc', [MessageState::Open->value])
            ->limit(50)
            ->get();
        $sees = $this->memberships->may($user, $case->project_id, Permission::SeeEvidence);
        $review =
            null === $case->binned_at
                ? DB::table('case_log')
                    ->join('users', 'users.id', '=', 'case_log.actor_id')
                    ->where('case_id', $case->id)
                    ->whereIn('kind', ['review_asked', 'approved', 'returned'])
                    ->orderByDesc('case_log.id')
                    ->first(['kind', 'payload', 'name', 'at', 'actor_id'])
                : null;

        return new CaseDetail(
            CaseLine::from($case),
            $case->version->number,
            $text->objective,
            $text->preconditions,
            $text->postconditions,
            ResourceMapper::steps($text->steps),
            $routines,
            ResourceMapper::files($text->files),
            array_values(
                $case->requirements
                    ->map(static fn($r): RequirementLine => new RequirementLine($r->id, $r->key, $r->title, $r->parent_id, 0))
                    ->all(),
            ),
            (new FolderPaths(Project::query()->findOrFail($case->project_id)))->path($case->folder_id),
            array_values($walks->map(CaseWalk::from(...))->all()),
            $sees ? DefectLines::of(array_values(array_map(strval(...), $defects))) : [],
            $sees ? array_values($messages->map(ResourceMapper::message(...))->all()) : [],
            ResourceMapper::problems($this->check->problems($case->project_id, $text, $book)),
            $this->others($case, $user),
            null === $review ? null : $this->review($review),
            null === $case->binned_at && $this->memberships->may($user, $case->project_id, Permission::WriteCases),
            $role->leads(),
        );
    }

    /**
     * @return list<Person> who else has the case open to write
     */
    public function others(TestCase $case, User $user): array
    {
        return array_values(
            User::query()
                ->whereIn(
                    'id',
                    DB::table('case_editing')
                        ->where('case_id', $case->id)
                        ->where('user_id', '<>', $user->id)
                        ->where('seen_at', '>', Carbon::now()->subSeconds(self::PRESENT_SECONDS))
                        ->select('user_id'),
                )
                ->orderBy('name')
                ->get()
                ->map(Person::from(...))
                ->all(),
        );
    }

    /**
     * Two versions by number; without them the newest and the one before it.
     *
     * @throws ModelNotFoundException when the case has no such version
     */
    public function comparisonOf(TestCase $case, ?int $from, ?int $to): CaseComparison
    {
        $version = static fn(int $number): CaseVersion => CaseVersion::query()
            ->where('case_id', $case->id)
            ->whereRaw('number = ?::bigint', [$number])
            ->with('steps', 'author', 'case')
            ->first() ?? throw new ModelNotFoundException();
        $to ??= (int) CaseVersion::query()->where('case_id', $case->id)->max('number');

        return $this->comparison($version($from ?? max(1, $to - 1)), $version($to));
    }

    public function history(TestCase $case): CaseHistory
    {
        $names = $this->names($case->project_id);
        $log = DB::table('case_log')
            ->join('users', 'users.id', '=', 'case_log.actor_id')
            ->where('case_id', $case->id)
            ->orderByDesc('case_log.id')
            ->limit(300)
            ->get(['case_log.*', 'users.name']);
        $versions = CaseVersion::query()->where('case_id', $case->id)->with('author')->orderByDesc('number')->limit(300)->get();

        return new CaseHistory(
            array_values(
                $log
                    ->map(function (object $row) use ($names): LogLine {
                        $payload = json_decode($row->payload, true) ?: [];

                        return new LogLine(
                            $row->id,
                            $row->kind,
                            Carbon::parse($row->at)->toIso8601ZuluString(),
                            new Person($row->actor_id, $row->name),
                            $row->version,
                            (string) ($payload['comment'] ?? ''),
                            self::changes($payload['fields'] ?? [], $names),
                        );
                    })
                    ->all(),
            ),
            array_values(
                $versions
                    ->map(
                        static fn(CaseVersion $v): VersionLine => new VersionLine(
                            $v->number,
                            $v->created_at->toIso8601ZuluString(),
                            (string) $v->author?->name,
                            $v->id === $case->approved_version_id,
                            $v->id === $case->version_id,
                        ),
                    )
                    ->all(),
            ),
        );
    }

    public function comparison(CaseVersion $from, CaseVersion $to): CaseComparison
    {
        [$a, $b] = [$from->text(), $to->text()];
        $fields = [];
        foreach (['title', 'objective', 'preconditions', 'postconditions'] as $name) {
            $fields[] = new FieldDiff($name, self::parts($a->{$name}, $b->{$name}));
        }
        $book = RoutineBook::with($from->case->project_id, [...CheckCase::uses($a->steps), ...CheckCase::uses($b->steps)]);
        $steps = [];
        foreach (Comparison::steps($a->steps, $b->steps) as $pair) {
            $was = null === $pair->from ? null : $a->steps[$pair->from];
            $is = null === $pair->to ? null : $b->steps[$pair->to];
            $routine = ($is ?? $was)?->routine;
            $steps[] = new StepDiff(
                $pair->is,
                null === $pair->from ? null : $pair->from + 1,
                null === $pair->to ? null : $pair->to + 1,
                array_map(
                    static fn(string $f): FieldDiff => new FieldDiff($f, self::parts(self::textOf($was, $f), self::textOf($is, $f))),
                    null === $routine ? ['action', 'data', 'expected'] : ['values'],
                ),
                ($was->files ?? []) !== ($is->files ?? []) && null !== $was && null !== $is,
                null === $routine ? null : $book->find($routine)->name ?? 'a routine that is gone',
            );
        }

        return new CaseComparison(
            $from->number,
            $to->number,
            $fields,
            $steps,
            $from->created_at->toIso8601ZuluString(),
            $to->created_at->toIso8601ZuluString(),
            (string) $from->author?->name,
            (string) $to->author?->name,
        );
    }

    /**
     * How the case went last, newest first, without opening it.
     *
     * @return list<CaseResult>
     */
    public function results(TestCase $case, User $user, Role $role): array
    {
        $sees = $this->memberships->may($user, $case->project_id, Permission::SeeEvidence);
        $rows = PlannedCycles::without(DB::table('entries')->join('cycles', 'cycles.id', '=', 'entries.cycle_id'), $role->leads())
            ->leftJoin('attempts', 'attempts.entry_id', '=', 'entries.id')
            ->leftJoin('users', 'users.id', '=', 'attempts.tester_id')
            ->leftJoin('builds', 'builds.id', '=', 'attempts.build_id')
            ->leftJoin('configurations', 'configurations.id', '=', 'entries.configuration_id')
            ->where('entries.case_id', $case->id)
            ->where(static fn($q) => $q->whereNull('attempts.id')->orWhere('attempts.state', '<>', 'abandoned'))
            ->orderByRaw('coalesce(attempts.finished_at, attempts.started_at, entries.created_at) desc')
            ->limit(10)
            ->get([
                'attempts.id as attempt_id',
                'entries.id as entry_id',
                'attempts.verdict',
                'attempts.state',
                'entries.display_state',
                'cycles.key',
                'cycles.name',
                'configurations.name as configuration',
                'builds.name as build',
                'users.name as tester',
                'attempts.finished_at',
                'attempts.note',
            ]);

        return array_values(
            $rows
                ->map(
                    static fn(\stdClass $r): CaseResult => new CaseResult(
                        $r->attempt_id,
                        $r->entry_id,
                        $r->verdict ?? ('open' === $r->state ? 'in_progress' : $r->display_state),
                        $r->key,
                        $r->name,
                        $r->configuration,
                        $r->build,
                        null === $r->tester ? null : HiddenNames::shown($r->tester),
                        null === $r->finished_at ? null : Carbon::parse($r->finished_at)->toIso8601ZuluString(),
                        $sees ? (string) $r->note : '',
                    ),
                )
                ->all(),
        );
    }

    /**
     * @param  array<string, array{mixed, mixed}>  $fields
     * @param  array<string, string>  $names  by id
     *
     * @return list<ChangeOfField>
     */
    public static function changes(array $fields, array $names): array
    {
        $say = static function (mixed $value) use ($names): string {
            $one = static fn(mixed $v): string => \is_scalar($v) ? $names[(string) $v] ?? (string) $v : '';
            if (\is_bool($value)) {
                return $value ? 'yes' : 'no';
            }
            if (\is_array($value)) {
                return ItemList::write(
                    array_is_list($value)
                        ? array_map($one, $value)
                        : array_map(static fn(string|int $k, mixed $v): string => $one($k) . ': ' . $one($v), array_keys($value), $value),
                );
            }

            return $one($value);
        };
        $changes = [];
        foreach ($fields as $name => [$from, $to]) {
            $changes[] = new ChangeOfField((string) $name, $say($from), $say($to));
        }

        return $changes;
    }

    /**
     * Names of people, folders, fields, requirements and tables by their ids.
     *
     * @return array<string, string>
     */
    public function names(string $project): array
    {
        $rows = DB::select(
            'select user_id as id, users.name from memberships join users on users.id = user_id where project_id = ? ' .
                'union all select id, name from folders where project_id = ? union all select id, name from ' .
                'custom_fields where project_id = ? union all select id, key from requirements where project_id = ? ' .
                'union all select id, name from data_tables where project_id = ?',
            array_fill(0, 5, $project),
        );

        return array_column(array_map(static fn(\stdClass $r): array => [$r->id, $r->name], $rows), 1, 0);
    }

    private function review(\stdClass $row): LogLine
    {
        $payload = json_decode($row->payload, true) ?: [];

        return new LogLine(
            '',
            $row->kind,
            Carbon::parse($row->at)->toIso8601ZuluString(),
            new Person($row->actor_id, $row->name),
            null,
            (string) ($payload['comment'] ?? ''),
            [],
        );
    }

    private static function textOf(?Step $step, string $field): string
    {
        if (null === $step) {
            return '';
        }

        return 'values' === $field
            ? implode(
                "\n",
                array_map(
                    static fn(string $n, string $v): string => "{$n} = {$v}",
                    array_map(strval(...), array_keys($step->values)),
                    array_values($step->values),
                ),
            )
            : $step->{$field};
    }

    /**
     * @return list<DiffPart>
     */
    private static function parts(string $from, string $to): array
    {
        return array_map(static fn(array $p): DiffPart => new DiffPart($p['kind'], $p['text']), Difference::words($from, $to));
    }
}
