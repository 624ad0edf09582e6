<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Data\BulkEditPreview;
use LucidStep\App\Areas\Casebook\Data\BulkEditResult;
use LucidStep\App\Areas\Casebook\Data\BulkEditSample;
use LucidStep\App\Areas\Casebook\Data\RefusedCase;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Areas\Casebook\Queries\ReadCase;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Casebook\CaseState;

/**
 * One act on many cases: edit, move, copy, bin, restore. It can be seen beforehand and undone as one.
 *
 * Changes of an edit are fields; of a move or copy `folder_id`; of a move `before` (the case it goes in front of); of a copy
 * `project` (its code). What was before is kept by case.
 *
 * @phpstan-type Changes array{
 *     state?: ?string, type?: ?string, priority?: ?string, estimate?: ?string, automated?: ?bool, is_template?: ?bool,
 *     owner_id?: ?string, labels_add?: ?list<string>, labels_remove?: ?list<string>, requirements_add?: ?list<string>,
 *     requirements_remove?: ?list<string>,
 *     custom?: ?array<string, ?string>, folder_id?: ?string, before?: ?string, project?: ?string
 * }
 * @phpstan-type Before array<string, array{revision: int, before: array<string, mixed>}>
 */
final readonly class BulkEditCases
{
    /** More at once would keep the person waiting; it is said beforehand. */
    public const MOST = 2000;

    public function __construct(
        private CaseWriterFactory $writers,
        private ReadCase $read,
        private CopyCases $copy,
        private RememberBulkEdit $remember,
        private RestoreFolders $folders,
    ) {}

    /**
     * @param  'edit'|'move'|'copy'|'bin'|'restore'  $act
     * @param  Changes  $changes
     */
    public function preview(Project $project, User $user, Role $role, string $act, CaseFilter $filter, array $changes): BulkEditPreview
    {
        $samples = $refused = [];
        $changed = $unchanged = 0;
        $names = $this->read->names($project->id);
        $take = new CaseInput($project);
        $cases = $this->cases($filter, isset($changes['state']));
        $walked = $this->walked($cases, $act);
        $approval = $this->writers->approval($project, $user);
        foreach ($cases as $case) {
            $why = $this->refusal($case, $act, $changes, $approval, $walked);
            if (null !== $why) {
                $refused[] = new RefusedCase($case->key, $case->title, $why);

                continue;
            }
            if ('edit' !== $act) {
                $changed++;

                continue;
            }
            $before = CaseFields::of($case);
            $after = $this->edited($take, $before, $changes);
            $differ = $before->changesTo($after);
            if ([] === $differ) {
                $unchanged++;
            } elseif (++$changed <= 20) {
                $samples[] = new BulkEditSample($case->key, $case->title, ReadCase::changes($differ, $names));
            }
        }

        return new BulkEditPreview($changed + $unchanged + \count($refused), $changed, $unchanged, $refused, $samples);
    }

    /**
     * @param  'edit'|'move'|'copy'|'bin'|'restore'  $act
     * @param  Changes  $changes
     */
    public function do(Project $project, User $user, Role $role, string $act, CaseFilter $filter, array $changes): BulkEditResult
    {
        $cases = $this->cases($filter, isset($changes['state']), true);
        $walked = $this->walked($cases, $act);
        $approval = $this->writers->approval($project, $user);
        $refused = [];
        $taken = $cases
            ->filter(function (TestCase $case) use ($act, $changes, $approval, $walked, &$refused): bool {
                $why = $this->refusal($case, $act, $changes, $approval, $walked);
                if (null !== $why) {
                    $refused[] = new RefusedCase($case->key, $case->title, $why);
                }

                return null === $why;
            })
            ->values();
        $writer = $this->writers->for($project, $user, $taken->count());
        if ('copy' === $act) {
            return $this->copied($project, $user, $taken, $changes, $refused, $writer);
        }
        $before = match ($act) {
            'edit' => $this->edit($project, $taken, $changes, $writer),
            'move' => $this->move($project, $taken, $changes, $writer),
            'bin' => $this->bin($taken, $user, $writer),
            'restore' => $this->restore($taken, $writer),
        };
        $writer->end();
        $word = ['edit' => 'Changed', 'move' => 'Moved', 'bin' => 'Binned', 'restore' => 'Restored'][$act];
        $title = $word . ' ' . \count($before) . (1 === \count($before) ? ' case' : ' cases');

        return new BulkEditResult(
            [] === $before ? null : ($this->remember)($project, $user, $title, $before),
            $title,
            \count($before),
            [],
            $refused,
        );
    }

    /**
     * @return Collection<int, TestCase>
     */
    private function cases(CaseFilter $filter, bool $withText, bool $lock = false): Collection
    {
        $found = $filter
            ->query()
            ->with($withText ? ['requirements', 'version.steps'] : ['requirements'])
            ->orderBy('position')
            ->when($lock, static fn($q) => $q->lockForUpdate())
            ->limit(self::MOST + 1)
            ->get();
        if ($found->count() > self::MOST) {
            throw ValidationException::withMessages([
                'filter' => \sprintf('At most %d cases at once. Narrow the filter, or do it in parts.', self::MOST),
            ]);
        }
        if ($found->isEmpty()) {
            throw ValidationException::withMessages(['filter' => 'None of these cases is there any more.']);
        }

        return $found;
    }

    /**
     * Those of some cases that somebody walks just now, asked only when they are to be binned.
     *
     * @param  Collection<int, TestCase>  $cases
     *
     * @return list<string> ids
     */
    private function walked(Collection $cases, string $act): array
    {
        return 'bin' !== $act
            ? []
            : array_values(
                array_map(
                    strval(...),
                    DB::table('entries')
                        ->whereIn('case_id', $cases->modelKeys())
                        ->whereIn('open_attempt_id', DB::table('attempts')->where('state', 'open')->select('id'))
                        ->distinct()
                        ->pluck('case_id')
                        ->all(),
                ),
            );
    }

    /**
     * @param  Changes  $changes
     * @param  list<string>  $walked ids
     */
    private function refusal(TestCase $case, string $act, array $changes, Approval $approval, array $walked): ?string
    {
        return match (true) {
            'restore' === $act => null === $case->binned_at ? 'It is not in the bin.' : null,
            null !== $case->binned_at => 'It is in the bin.',
            'bin' === $act && \in_array($case->id, $walked, true) => 'It is being walked just now. Bin it afterwards.',
            'edit' === $act && isset($changes['state']) => $approval->refusals(
                CaseState::from($changes['state']),
                $case->loadMissing('version.steps')->version->text(),
                $case,
            )[0] ?? null,
            default => null,
        };
    }

    /**
     * @param  Changes  $changes
     */
    private function edited(CaseInput $take, CaseFields $before, array $changes): CaseFields
    {
        $labels = $before->labels;
        if (isset($changes['labels_add']) || isset($changes['labels_remove'])) {
            $lower = static fn(array $l): array => array_map(static fn(mixed $x): string => mb_strtolower((string) $x), $l);
            $gone = $lower($changes['labels_remove'] ?? []);
            $labels = array_values(array_filter($labels, static fn(string $l): bool => !\in_array(mb_strtolower($l), $gone, true)));
            foreach ($changes['labels_add'] ?? [] as $label) {
                if (!\in_array(mb_strtolower((string) $label), $lower($labels), true)) {
                    $labels[] = (string) $label;
                }
            }
        }
        if (isset($changes['requirements_add']) || isset($changes['requirements_remove'])) {
            $stay = array_diff($before->requirements, $changes['requirements_remove'] ?? []);
            $changes['requirements'] = array_values(array_unique([...$stay, ...$changes['requirements_add'] ?? []]));
        }
        $after = $take->fields([...$changes, 'labels' => $labels], $before);

        return isset($changes['state']) ? $after->with(['state' => $changes['state']]) : $after;
    }

    /**
     * @param  Collection<int, TestCase>  $cases
     * @param  Changes  $changes
     *
     * @return Before
     */
    private function edit(Project $project, Collection $cases, array $changes, CaseWriter $writer): array
    {
        $take = new CaseInput($project);
        $before = [];
        foreach ($cases as $case) {
            $was = CaseFields::of($case);
            $is = $this->edited($take, $was, $changes);
            if ($writer->change($case, null, $is)) {
                $before[$case->id] = [
                    'revision' => $case->revision,
                    'before' => array_map(static fn(array $c): mixed => $c[0], $was->changesTo($is)),
                ];
            }
        }

        return $before;
    }

    /**
     * @param  Collection<int, TestCase>  $cases
     * @param  Changes  $changes
     *
     * @return Before
     */
    private function move(Project $project, Collection $cases, array $changes, CaseWriter $writer): array
    {
        $folder = (new CaseInput($project))->fields(['folder_id' => $changes['folder_id'] ?? null], new CaseFields())->folder_id;
        $ids = $cases->modelKeys();
        $anchor = \is_string($changes['before'] ?? null)
            ? TestCase::query()->where('project_id', $project->id)->where('folder_id', $folder)->find($changes['before'])
            : null;
        $others = TestCase::query()->where('project_id', $project->id)->where('folder_id', $folder)->whereNotIn('id', $ids);
        if (null === $anchor) {
            $low = (float) (clone $others)->max('position');
            $high = $low + \count($ids) + 1;
        } else {
            $high = $anchor->position;
            $low = (float) ((clone $others)->where('position', '<', $high)->max('position') ?? $high - \count($ids) - 1);
        }
        $before = [];
        foreach ($cases as $i => $case) {
            $was = ['folder_id' => $case->folder_id, 'position' => $case->position];
            $case->position = $low + (($high - $low) * ((int) $i + 1)) / (\count($ids) + 1);
            if (!$writer->change($case, null, CaseFields::of($case)->with(['folder_id' => $folder]), 'moved')) {
                $case->save();
            }
            $before[$case->id] = ['revision' => $case->revision, 'before' => $was];
        }

        return $before;
    }

    /**
     * @param  Collection<int, TestCase>  $cases
     *
     * @return Before
     */
    private function bin(Collection $cases, User $user, CaseWriter $writer): array
    {
        $before = [];
        foreach ($cases as $case) {
            $case->forceFill(['binned_at' => Carbon::now(), 'binned_by_id' => $user->id, 'revision' => $case->revision + 1])->save();
            $writer->log($case->id, 'binned', []);
            $before[$case->id] = ['revision' => $case->revision, 'before' => ['binned_at' => null]];
        }

        return $before;
    }

    /**
     * @param  Collection<int, TestCase>  $cases
     *
     * @return Before
     */
    private function restore(Collection $cases, CaseWriter $writer): array
    {
        $before = [];
        ($this->folders)($cases->pluck('folder_id')->all());
        foreach ($cases as $case) {
            $was = $case->binned_at?->toIso8601String();
            $case->forceFill(['binned_at' => null, 'binned_by_id' => null, 'revision' => $case->revision + 1])->save();
            $writer->log($case->id, 'restored', []);
            $before[$case->id] = ['revision' => $case->revision, 'before' => ['binned_at' => $was]];
        }

        return $before;
    }

    /**
     * @param  Collection<int, TestCase>  $cases
     * @param  Changes  $changes
     * @param  list<RefusedCase>  $refused
     */
    private function copied(
        Project $project,
        User $user,
        Collection $cases,
        array $changes,
        array $refused,
        CaseWriter $writer,
    ): BulkEditResult {
        $cases->load('version.steps');
        $target =
            \is_string($changes['project'] ?? null) && $changes['project'] !== $project->code
                ? Project::query()->where('code', $changes['project'])->firstOrFail()
                : $project;
        $made = $target->is($project)
            ? $this->copy->within($project, $cases, \array_key_exists('folder_id', $changes) ? [$changes['folder_id']] : [], $writer)
            : $this->copy->into($project, $target, $cases, $this->writers->for($target, $user, $cases->count()));
        $before = [];
        foreach ($made as $one) {
            $before[$one['id']] = ['revision' => 1, 'before' => [], 'made' => true];
        }
        $title =
            'Copied ' . \count($made) . (1 === \count($made) ? ' case' : ' cases') . ($target->is($project) ? '' : " to {$target->name}");

        return new BulkEditResult(
            [] === $before ? null : ($this->remember)($target, $user, $title, $before),
            $title,
            \count($made),
            array_column($made, 'key'),
            $refused,
        );
    }
}
