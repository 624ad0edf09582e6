<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Defects\Data\DefectActPreview;
use LucidStep\App\Areas\Defects\Data\DefectActResult;
use LucidStep\App\Areas\Defects\Data\DefectActSample;
use LucidStep\App\Areas\Defects\Data\DefectMove;
use LucidStep\App\Areas\Defects\Data\FieldChange;
use LucidStep\App\Areas\Defects\Data\ManyChanges;
use LucidStep\App\Areas\Defects\Data\RefusedDefect;
use LucidStep\App\Areas\Defects\Queries\DefectFilter;
use LucidStep\App\Models\BulkAct;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Defects\DefectField;
use LucidStep\Core\Defects\FieldEdit;

/**
 * Changes many defects in one act, each as if it were changed alone: what refuses there is left out here and named. It can be seen
 * beforehand, and taken back as one.
 */
final readonly class EditManyDefects
{
    /** More at once would keep the person waiting. */
    public const MOST = 500;

    private const SAMPLES = 20;

    public function __construct(private EditDefect $edit, private ChangeDefectState $move) {}

    /**
     * What the act would do: it is done, and all of it is forgotten.
     *
     * @param  bool  $mayFile whether they may file defects
     */
    public function preview(Project $project, User $user, DefectFilter $filter, ManyChanges $changes, bool $mayFile): DefectActPreview
    {
        DB::beginTransaction();
        try {
            [$before, $refused, $unchanged, $samples] = $this->change($project, $user, $filter, $changes, $mayFile);
        } finally {
            DB::rollBack();
        }

        return new DefectActPreview(\count($before) + $unchanged + \count($refused), \count($before), $unchanged, $refused, $samples);
    }

    /**
     * @param  bool  $mayFile whether they may file defects
     */
    public function __invoke(Project $project, User $user, DefectFilter $filter, ManyChanges $changes, bool $mayFile): DefectActResult
    {
        [$before, $refused] = $this->change($project, $user, $filter, $changes, $mayFile);
        $count = \count($before);
        $title = "Changed {$count} " . (1 === $count ? 'defect' : 'defects');

        return new DefectActResult([] === $before ? null : $this->remember($project, $user, $title, $before), $title, $count, $refused);
    }

    /**
     * Takes an act back; what was changed again since is left and named.
     */
    public function undo(BulkAct $act, Project $project, User $user): DefectActResult
    {
        $act = BulkAct::query()->where('subject', 'defect')->lockForUpdate()->findOrFail($act->id);
        if (null !== $act->undone_at) {
            throw AlreadyDone::undone();
        }
        $rows = DB::table('bulk_act_defects')->where('act_id', $act->id)->get()->keyBy('defect_id');
        $fields = new DefectFields($project);
        $refused = [];
        foreach (Defect::query()->whereIn('id', $rows->keys())->orderBy('id')->lockForUpdate()->get() as $defect) {
            $row = $rows[$defect->id] ?? throw new \LogicException('Only these were asked for.');
            if ($defect->version !== (int) $row->version) {
                $refused[] = new RefusedDefect($defect->key, $defect->title, 'It was changed again since.');

                continue;
            }
            [$said, $stood] = json_decode($row->before, true, 8, \JSON_THROW_ON_ERROR);
            $now = $fields->of($defect);
            // A field that the project took out since is gone.
            $said = array_intersect_key($said, $now);
            $this->edit->apply($fields, $defect, $user, (new FieldEdit($now, $said))->changes($now));
            if ($stood['state'] !== $defect->state->value) {
                $this->move->takeBack($defect, $user, $stood);
            }
        }
        $act->update(['undone_at' => Carbon::now()]);
        $title = 'Undone: ' . mb_strtolower(mb_substr($act->title, 0, 1)) . mb_substr($act->title, 1);

        return new DefectActResult(null, $title, $rows->count() - \count($refused), $refused);
    }

    /**
     * @throws ValidationException when too many fit, or by field
     * @return array{array<string, array{int, list<array<string, mixed>>}>, list<RefusedDefect>, int, list<DefectActSample>} what each was,
     *     by id, with its version now; what was left out; how many stay as they are; some of the changes
     */
    private function change(Project $project, User $user, DefectFilter $filter, ManyChanges $changes, bool $mayFile): array
    {
        $fields = new DefectFields($project);
        $wanted = $fields->take($changes->fields);
        $before = $refused = $samples = [];
        $unchanged = 0;
        foreach ($this->defects($filter) as $defect) {
            $stood = array_intersect_key($defect->getAttributes(), array_flip(ChangeDefectState::MOVED));
            $now = $fields->of($defect);
            $is = [...$wanted, ...$changes->labels($now[DefectField::Labels->value] ?? '')];
            $edits = (new FieldEdit($now, $is))->changes($now);
            $moves = null !== $changes->move && $changes->move->to !== $defect->state;
            if ([] === $edits && !$moves) {
                $unchanged++;

                continue;
            }
            try {
                $after = $this->one($fields, $defect, $user, $edits, $moves ? $changes->move : null, $mayFile);
            } catch (Conflict | AuthorizationException | ValidationException $refusal) {
                $refused[] = new RefusedDefect($defect->key, $defect->title, self::words($refusal));

                continue;
            }
            $before[$defect->id] = [$after->version, [array_map(static fn(array $c): ?string => $c[0], $edits), $stood]];
            if (\count($samples) < self::SAMPLES) {
                $samples[] = new DefectActSample($defect->key, $defect->title, self::told($edits, $defect, $after));
            }
        }

        return [$before, $refused, $unchanged, $samples];
    }

    /**
     * @param  array<string, array{?string, ?string}>  $edits
     */
    private function one(DefectFields $fields, Defect $defect, User $user, array $edits, ?DefectMove $move, bool $mayFile): Defect
    {
        // Whatever refuses, nothing of this one is changed.
        return DB::transaction(function () use ($fields, $defect, $user, $edits, $move, $mayFile): Defect {
            $moved = null === $move ? clone $defect : ($this->move)($defect, $user, $move, $mayFile);
            $this->edit->apply($fields, $moved, $user, $edits);

            return $moved;
        });
    }

    /**
     * @return Collection<int, Defect>
     */
    private function defects(DefectFilter $filter): Collection
    {
        $ids = $filter
            ->query()
            ->limit(self::MOST + 1)
            ->pluck('defects.id')
            ->all();
        if (\count($ids) > self::MOST) {
            throw ValidationException::withMessages([
                'filter' => 'At most ' . self::MOST . ' at once. Narrow the list, or choose some of them.',
            ]);
        }

        return Defect::query()->whereKey($ids)->orderBy('id')->lockForUpdate()->get()->sortBy('number');
    }

    /**
     * @param  array<string, array{int, list<array<string, mixed>>}>  $before
     *
     * @return string the id of the act
     */
    private function remember(Project $project, User $user, string $title, array $before): string
    {
        $act = BulkAct::query()->create([
            'project_id' => $project->id,
            'actor_id' => $user->id,
            'subject' => 'defect',
            'title' => $title,
            'folders' => [],
            'suites' => [],
            'created_at' => Carbon::now(),
        ]);
        DB::table('bulk_act_defects')->insert(
            array_map(
                static fn(string $id, array $of): array => [
                    'act_id' => $act->id,
                    'defect_id' => $id,
                    'version' => $of[0],
                    'before' => json_encode($of[1], \JSON_THROW_ON_ERROR),
                ],
                array_keys($before),
                $before,
            ),
        );

        return $act->id;
    }

    /**
     * @param  array<string, array{?string, ?string}>  $edits
     *
     * @return list<FieldChange>
     */
    private static function told(array $edits, Defect $before, Defect $after): array
    {
        $all = $before->state === $after->state ? [] : ['state' => [$before->state->value, $after->state->value]];

        return array_map(
            static fn(string $field, array $change): FieldChange => new FieldChange($field, $change[0], $change[1]),
            array_keys([...$all, ...$edits]),
            [...$all, ...$edits],
        );
    }

    private static function words(Conflict|AuthorizationException|ValidationException $refusal): string
    {
        return match (true) {
            $refusal instanceof AuthorizationException => 'You may not move it there.',
            $refusal instanceof ValidationException => implode(' ', $refusal->validator->errors()->all()),
            default => $refusal->getMessage(),
        };
    }
}
