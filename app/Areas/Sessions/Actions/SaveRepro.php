<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Actions;

use LucidStep\App\Areas\Casebook\Actions\SaveCase;
use LucidStep\App\Areas\Sessions\Exceptions\SessionConflict;
use LucidStep\App\Models\Charter;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Repro;
use LucidStep\App\Models\Routine;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Models\Step;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Defects\Draft;
use LucidStep\Core\Sessions\RoutineRuns;

/**
 * Keeps what leads to a fault that a session saw, how often it showed when that was walked again, and makes a case of it.
 */
final readonly class SaveRepro
{
    public function __construct(private SaveCase $cases, private PublishChange $announce) {}

    /**
     * @param  list<array{line: ?string, words: string}>  $steps
     * @param  int  $version that the person began from; 0: nobody saved it yet
     *
     * @throws SessionConflict when somebody else saved it meanwhile
     */
    public function save(SessionLine $line, User $by, array $steps, int $version): void
    {
        $this->change($line, $by, static function (Repro $repro) use ($by, $steps, $version): void {
            $known = [] === $repro->steps ? 0 : $repro->version;
            if ($steps === $repro->steps) {
                return;
            }
            if ($known !== $version) {
                throw SessionConflict::reproChanged($known);
            }
            $repro->fill(['steps' => $steps, 'saved_by_id' => $by->id, 'version' => $known + 1]);
        });
    }

    /**
     * It was walked again.
     */
    public function try(SessionLine $line, User $by, bool $shown): void
    {
        $this->change($line, $by, static function (Repro $repro) use ($shown): void {
            $repro->fill(['tries' => $repro->tries + 1, 'shown' => $repro->shown + (int) $shown]);
        });
    }

    /**
     * Makes a case of it: a run of sentences that equals a routine becomes its use; what the marked line says stands as what is to be
     * looked for at the last step.
     *
     * @throws SessionConflict when there is no step, or a case was made already
     */
    public function makeCase(SessionLine $line, User $by): void
    {
        $this->change($line, $by, function (Repro $repro) use ($line, $by): void {
            if ([] === $repro->steps) {
                throw SessionConflict::noSteps();
            }
            if (null !== $repro->case_id) {
                throw SessionConflict::caseMade((string) $repro->case?->key);
            }
            $project = Project::query()->findOrFail($line->project_id);
            $charter = $repro->session->charter;
            $found = RoutineRuns::in(array_column($repro->steps, 'words'), self::routines($project));
            $steps = array_map(static fn(string|array $s): array => \is_string($s) ? ['action' => $s] : $s, $found);
            $last = \count($steps) - 1;
            $steps = isset($steps[$last]['routine'])
                ? [...$steps, ['action' => 'Look at what it shows.', 'expected' => $line->words]]
                : [...\array_slice($steps, 0, -1), [...$steps[$last], 'expected' => $line->words]];
            $saved = $this->cases->make($project, $by, [
                'title' => Draft::title($charter->title, $line->words),
                'steps' => $steps,
                ...self::area($charter),
            ]);
            $repro->case_id = $saved->case->id;
            if (null !== $repro->defect) {
                $repro->defect->update(['case_id' => $saved->case->id]);
                ($this->announce)($line->project_id, 'defect', $repro->defect->id);
            }
        });
    }

    /**
     * @param  \Closure(Repro): void  $do
     */
    private function change(SessionLine $line, User $by, \Closure $do): void
    {
        Transactions::run(function () use ($line, $by, $do): void {
            $repro = Repro::of($line, $by);
            $do($repro);
            $repro->save();
            ($this->announce)($line->project_id, 'session', $line->session_id);
        });
    }

    /**
     * @return array<string, list<string>>
     */
    private static function routines(Project $project): array
    {
        $found = Routine::query()->where('project_id', $project->id)->whereNull('binned_at')->with('version.steps')->get();

        return $found
            ->mapWithKeys(
                static fn(Routine $r): array => [
                    $r->id => array_values($r->version->steps->map(static fn(Step $s): string => $s->action)->all()),
                ],
            )
            ->all();
    }

    /**
     * @return array<string, mixed> where the case belongs, as its charter says
     */
    private static function area(Charter $charter): array
    {
        return [
            ...null === $charter->folder_id ? [] : ['folder_id' => $charter->folder_id],
            ...'' === $charter->label ? [] : ['labels' => [$charter->label]],
            ...null === $charter->requirement_id ? [] : ['requirements' => [$charter->requirement_id]],
        ];
    }
}
