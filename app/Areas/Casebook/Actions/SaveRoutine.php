<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Queries\RoutineAndTableQueries;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Routine;
use LucidStep\App\Models\RoutineVersion;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Problems\InUse;
use LucidStep\App\Support\Problems\SavedMeanwhile;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Data\Names;
use LucidStep\Core\Data\Parameter;
use LucidStep\Core\Data\Routine as CoreRoutine;
use LucidStep\Core\Data\RoutineLoop;
use LucidStep\Core\Data\Routines;
use LucidStep\Core\Data\TooManySteps;

/**
 * Makes, changes, bins and restores routines.
 */
final readonly class SaveRoutine
{
    public function __construct(
        private PublishChange $announce,
        private RoutineAndTableQueries $shelf,
        private CaseWriterFactory $writers,
    ) {}

    /**
     * @param  array<string, mixed>  $input name, description, parameters, steps
     *
     * @throws ValidationException when a name is taken or no name, or the routine would stand within itself
     */
    public function save(Project $project, User $user, ?Routine $routine, array $input, ?int $revision): Routine
    {
        $routine = null === $routine ? null : Routine::query()->lockForUpdate()->findOrFail($routine->id);
        if (null !== $routine) {
            SavedMeanwhile::check($revision, $routine->revision, 'this routine');
        }
        $parameters = array_map(
            static fn(array $p): Parameter => new Parameter(trim((string) ($p['name'] ?? '')), (string) ($p['default'] ?? '')),
            array_values($input['parameters'] ?? []),
        );
        $text = (new CaseInput($project))->text(['title' => 'x', 'steps' => $input['steps'] ?? []]);
        $this->check($project, $routine, trim((string) $input['name']), $parameters, $text->steps);

        return $this->store(
            $project,
            $routine,
            trim((string) $input['name']),
            (string) ($input['description'] ?? ''),
            $parameters,
            $text->steps,
            $user,
        );
    }

    /**
     * @param  list<Parameter>  $parameters
     * @param  list<Step>  $steps
     */
    public function store(
        Project $project,
        ?Routine $routine,
        string $name,
        string $description,
        array $parameters,
        array $steps,
        ?User $user,
    ): Routine {
        $version = (string) Str::uuid7();
        $number = 1;
        if (null === $routine) {
            $routine = Routine::query()
                ->create(['project_id' => $project->id, 'name' => $name, 'description' => $description, 'version_id' => $version])
                ->refresh();
        } else {
            $number = 1 + (int) RoutineVersion::query()->where('routine_id', $routine->id)->max('number');
            $routine->update([
                'name' => $name,
                'description' => $description,
                'version_id' => $version,
                'revision' => $routine->revision + 1,
            ]);
        }
        DB::table('routine_versions')->insert([
            'id' => $version,
            'routine_id' => $routine->id,
            'number' => $number,
            'name' => $name,
            'author_id' => $user?->id,
            'created_at' => Carbon::now(),
            'parameters' => json_encode(
                array_map(static fn(Parameter $p): array => ['name' => $p->name, 'default' => $p->default], $parameters),
                \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE,
            ),
        ]);
        DB::table('steps')->insert(
            array_map(
                static fn(Step $s, int $i): array => ['routine_version_id' => $version, ...CaseWriter::stepRow($s, $i + 1)],
                $steps,
                array_keys($steps),
            ),
        );
        ($this->announce)($project->id, 'case', $routine->id);

        return $routine->unsetRelations();
    }

    /**
     * Makes a routine of steps of a case, which from then on uses it.
     *
     * @param  list<int>  $positions from 1, one after another
     *
     * @throws Conflict when the case was saved meanwhile
     */
    public function extract(TestCase $case, User $user, string $name, array $positions, int $revision): Routine
    {
        $locked = $this->writers->lock($case->id);
        SaveCase::refuseBinned($locked);
        if ($locked->revision !== $revision) {
            throw SavedMeanwhile::beforeExtracting($locked->revision);
        }
        sort($positions);
        $text = $locked->version->text();
        $count = \count($positions);
        if (
            0 === $count ||
            $positions !== range($positions[0], $positions[0] + $count - 1) ||
            $positions[0] < 1 ||
            $positions[$count - 1] > \count($text->steps)
        ) {
            throw ValidationException::withMessages(['steps' => 'Choose steps that stand one after another.']);
        }
        $project = Project::query()->findOrFail($case->project_id);
        $chosen = \array_slice($text->steps, $positions[0] - 1, $count);
        $this->check($project, null, trim($name), [], $chosen);
        $routine = $this->store($project, null, trim($name), '', [], $chosen, $user);
        $steps = $text->steps;
        array_splice($steps, $positions[0] - 1, $count, [new Step('', '', '', [], $routine->id)]);
        $writer = $this->writers->for($project, $user);
        $writer->change(
            $locked,
            CaseText::fromArray([...$text->toArray(), 'steps' => array_map(static fn(Step $s): array => $s->toArray(), $steps)]),
            CaseFields::of($locked),
            'edited',
            ['comment' => "Steps moved to the routine \"{$routine->name}\""],
        );
        $writer->end();

        return $routine;
    }

    /**
     * @throws Conflict with the places, while it is in use
     */
    public function bin(Routine $routine): void
    {
        $uses = $this->shelf->routineUses($routine);
        if ([] !== $uses) {
            throw InUse::inPlaces($routine->name, $uses, 'Take it out there first.');
        }
        $routine->update(['binned_at' => Carbon::now()]);
        ($this->announce)($routine->project_id, 'case', $routine->id);
    }

    public function restore(Routine $routine): void
    {
        $this->refuseTaken('routines', $routine->project_id, $routine->name, $routine->id);
        $routine->update(['binned_at' => null]);
        ($this->announce)($routine->project_id, 'case', $routine->id);
    }

    public static function refuseTaken(string $table, string $project, string $name, ?string $self): void
    {
        if (
            DB::table($table)
                ->where('project_id', $project)
                ->whereNull('binned_at')
                ->whereRaw('lower(name) = lower(?)', [$name])
                ->when(null !== $self, static fn($q) => $q->where('id', '<>', $self))
                ->exists()
        ) {
            throw ValidationException::withMessages(['name' => "There is one named \"{$name}\" already."]);
        }
    }

    /**
     * @param  list<Parameter>  $parameters
     * @param  list<Step>  $steps
     */
    private function check(Project $project, ?Routine $routine, string $name, array $parameters, array $steps): void
    {
        if ('' === $name) {
            throw ValidationException::withMessages(['name' => 'A routine needs a name.']);
        }
        self::refuseTaken('routines', $project->id, $name, $routine?->id);
        $errors = [];
        $seen = [];
        foreach ($parameters as $i => $parameter) {
            if (!Names::isName($parameter->name)) {
                $errors["parameters.{$i}.name"] = 'A name is letters, digits and underscore.';
            } elseif (isset($seen[$parameter->key()])) {
                $errors["parameters.{$i}.name"] = "\"{$parameter->name}\" stands there twice.";
            }
            $seen[$parameter->key()] = true;
        }
        if ([] === $steps) {
            $errors['steps'] = 'A routine needs at least one step.';
        }
        $self = new CoreRoutine($routine->id ?? 'new', $name, $parameters, $steps);
        $all = [$self];
        foreach (
            Routine::query()
                ->where('project_id', $project->id)
                ->when($routine?->id, static fn($q, string $id) => $q->where('id', '<>', $id))
                ->with('version.steps')
                ->get()
            as $other
        ) {
            $all[] = $other->version->toCore();
        }
        try {
            $book = new Routines($all);
            $book->refuseLoops();
            $book->expand([new Step('', '', '', [], $self->id)]);
        } catch (RoutineLoop | TooManySteps $e) {
            $errors['steps'] = $e->getMessage();
        }
        if ([] !== $errors) {
            throw ValidationException::withMessages($errors);
        }
    }
}
