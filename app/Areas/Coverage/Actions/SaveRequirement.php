<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Actions;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Coverage\Exceptions\RequirementConflict;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Requirement;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Keys\NextKey;
use LucidStep\App\Support\Problems\SavedMeanwhile;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Coverage\RequirementWords;

/**
 * Writes requirements, moves them in their tree, drops them and takes them up again. Every way in goes through here, imports too.
 */
final readonly class SaveRequirement
{
    /** How many stand one below the other at most. */
    public const DEEPEST = 30;

    public function __construct(private NextKey $nextKey, private LogRequirement $log) {}

    /**
     * @param  ?string  $parent id of the one above it
     * @param  ?string  $import the import that makes it
     *
     * @throws ValidationException by field
     */
    public function make(Project $project, User $by, RequirementWords $words, ?string $parent = null, ?string $import = null): Requirement
    {
        return Transactions::run(function () use ($project, $by, $words, $parent, $import): Requirement {
            $this->check($project->id, $words, null);
            $this->above($project->id, $parent);
            $number = $this->nextKey->reserve($project, 'requirement');
            $made = Requirement::query()->create([
                ...self::columns($words),
                'project_id' => $project->id,
                'number' => $number,
                'key' => "{$project->code}-Q{$number}",
                'parent_id' => $parent,
                'position' => 1 + (float) $this->siblings($project->id, $parent)->max('position'),
            ]);
            ($this->log)($made, $by, 'made', self::differ(new RequirementWords(''), $words), $import);

            return $made->refresh();
        });
    }

    /**
     * @param  int  $revision the one that the person began from
     *
     * @throws SavedMeanwhile
     * @throws ValidationException by field
     */
    public function change(Requirement $requirement, User $by, RequirementWords $words, ?int $revision, ?string $import = null): Requirement
    {
        return Transactions::run(function () use ($requirement, $by, $words, $revision, $import): Requirement {
            $requirement = Requirement::query()->lockForUpdate()->findOrFail($requirement->id);
            if (null === $import) {
                SavedMeanwhile::check($revision, $requirement->revision, 'this requirement');
            }
            $this->check($requirement->project_id, $words, $requirement->id);
            $before = $requirement->words();
            $differ = self::differ($before, $words);
            if ([] === $differ) {
                return $requirement;
            }
            $requirement->fill([
                ...self::columns($words),
                'revision' => $requirement->revision + 1,
                'words_revision' => $requirement->words_revision + ($words->saysTheSameAs($before) ? 0 : 1),
            ]);
            $requirement->save();
            ($this->log)($requirement, $by, 'changed', $differ, $import);

            return $requirement;
        });
    }

    /**
     * @param  ?string  $parent id of the one it goes below; null: on top
     * @param  ?string  $before id of the one it goes in front of; null: last
     *
     * @throws ValidationException when it would stand below itself, or too deep
     */
    public function move(Requirement $requirement, User $by, ?string $parent, ?string $before, ?string $import = null): void
    {
        Transactions::run(function () use ($requirement, $by, $parent, $before, $import): void {
            // Two moves at once could close a loop together.
            Project::query()->lockForUpdate()->findOrFail($requirement->project_id);
            $requirement = Requirement::query()->findOrFail($requirement->id);
            if (\in_array($requirement->id, $this->above($requirement->project_id, $parent, $this->depth($requirement->id)), true)) {
                throw ValidationException::withMessages(['parent_id' => 'A requirement cannot stand below itself.']);
            }
            $order = $this->siblings($requirement->project_id, $parent)
                ->where('id', '<>', $requirement->id)
                ->orderBy('position')
                ->orderBy('number')
                ->pluck('id')
                ->all();
            $at = null === $before ? false : array_search($before, $order, true);
            array_splice($order, false === $at ? \count($order) : (int) $at, 0, [$requirement->id]);
            $was = $requirement->parent_id;
            $next = $this->siblings($requirement->project_id, $was)
                ->where('position', '>', $requirement->position)
                ->orderBy('position')
                ->value('id');
            $requirement->update(['parent_id' => $parent]);
            DB::update(
                'update requirements set position = o.at from unnest(?::uuid[]) with ordinality o(id, at) where requirements.id = o.id',
                ['{' . implode(',', $order) . '}'],
            );
            ($this->log)($requirement, $by, 'moved', ['parent_id' => [$was, $parent], 'before_id' => [$next, $before]], $import);
        });
    }

    /**
     * Says that it need not hold any more, or takes that back. Its links stay.
     *
     * @throws RequirementConflict when others stand below it, or it would come back below one that is dropped
     */
    public function drop(Requirement $requirement, User $by, bool $dropped, ?string $import = null): Requirement
    {
        return Transactions::run(function () use ($requirement, $by, $dropped, $import): Requirement {
            Project::query()->lockForUpdate()->findOrFail($requirement->project_id);
            $requirement = Requirement::query()->findOrFail($requirement->id);
            if ((null !== $requirement->dropped_at) === $dropped) {
                return $requirement;
            }
            $below = $this->siblings($requirement->project_id, $requirement->id)->count();
            if ($dropped && $below > 0) {
                throw RequirementConflict::othersStandBelow($requirement->key, $below);
            }
            if (!$dropped && null !== $requirement->parent?->dropped_at) {
                throw RequirementConflict::isBelowADropped($requirement->parent->key);
            }
            $requirement->update(['dropped_at' => $dropped ? Carbon::now() : null, 'revision' => $requirement->revision + 1]);
            ($this->log)($requirement, $by, $dropped ? 'dropped' : 'restored', [], $import);

            return $requirement;
        });
    }

    /**
     * Says that linked cases fit the words as they are now.
     *
     * @param  ?list<string>  $cases ids; null: all that are linked
     *
     * @return int how many were to be looked at
     */
    public function confirm(Requirement $requirement, User $by, ?array $cases): int
    {
        return Transactions::run(function () use ($requirement, $by, $cases): int {
            $requirement = Requirement::query()->lockForUpdate()->findOrFail($requirement->id);
            $open = DB::table('case_requirements')
                ->join('cases', 'cases.id', '=', 'case_requirements.case_id')
                ->where('requirement_id', $requirement->id)
                ->where('seen_words', '<', $requirement->words_revision)
                ->when(null !== $cases, static fn($q) => $q->whereIn('case_id', $cases ?? []))
                ->orderBy('cases.number')
                ->pluck('cases.key', 'cases.id')
                ->all();
            if ([] !== $open) {
                DB::table('case_requirements')
                    ->where('requirement_id', $requirement->id)
                    ->whereIn('case_id', array_keys($open))
                    ->update(['seen_words' => $requirement->words_revision]);
                ($this->log)($requirement, $by, 'confirmed', ['cases' => ['', implode(', ', $open)]]);
            }

            return \count($open);
        });
    }

    /**
     * @return Builder<Requirement>
     */
    private function siblings(string $project, ?string $parent): Builder
    {
        return Requirement::query()->where('project_id', $project)->where('parent_id', $parent)->whereNull('dropped_at');
    }

    /**
     * @param  int  $below how many levels come with what goes below
     *
     * @throws ValidationException when it is not there, or too deep
     * @return list<string> ids of a requirement and of those above it
     */
    private function above(string $project, ?string $parent, int $below = 1): array
    {
        if (null === $parent) {
            return [];
        }
        $found = array_column(
            DB::select(
                'with recursive up as (select id, parent_id from requirements where project_id = ? and id = ? and dropped_at is null ' .
                    'union all select r.id, r.parent_id from requirements r join up on r.id = up.parent_id) select id from up',
                [$project, $parent],
            ),
            'id',
        );
        if ([] === $found) {
            throw ValidationException::withMessages(['parent_id' => 'This requirement is not there any more.']);
        }
        if (\count($found) + $below > self::DEEPEST) {
            throw ValidationException::withMessages([
                'parent_id' => \sprintf('At most %d requirements stand one below the other.', self::DEEPEST),
            ]);
        }

        return array_map(strval(...), $found);
    }

    /**
     * How many levels a requirement has, with those below it.
     */
    private function depth(string $id): int
    {
        $found = DB::selectOne(
            'with recursive down as (select id, 1 as level from requirements where id = ? union all select r.id, level + 1 ' .
                'from requirements r join down on r.parent_id = down.id where r.dropped_at is null) select max(level) as depth from down',
            [$id],
        );

        return (int) ($found->depth ?? 1);
    }

    /**
     * @throws ValidationException
     */
    private function check(string $project, RequirementWords $words, ?string $but): void
    {
        $faults = $words->faults();
        $taken =
            null !== $words->externalId &&
            Requirement::query()
                ->where('project_id', $project)
                ->where('external_id', $words->externalId)
                ->when(null !== $but, static fn($q) => $q->where('id', '<>', $but))
                ->exists();
        if ($taken) {
            $faults['external_id'] = 'Another requirement has this identifier.';
        }
        if ([] !== $faults) {
            throw ValidationException::withMessages($faults);
        }
    }

    /**
     * @return array<string, mixed>
     */
    private static function columns(RequirementWords $words): array
    {
        return [
            'title' => $words->title,
            'text' => $words->text,
            'external_id' => $words->externalId,
            'details' => $words->details,
        ];
    }

    /**
     * @return array<string, array{mixed, mixed}>
     */
    private static function differ(RequirementWords $before, RequirementWords $after): array
    {
        $changes = [];
        foreach (['title', 'text', 'externalId', 'details'] as $field) {
            if ($before->{$field} !== $after->{$field}) {
                $changes['externalId' === $field ? 'external_id' : $field] = [$before->{$field}, $after->{$field}];
            }
        }

        return $changes;
    }
}
