<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Queries;

use LucidStep\App\Areas\Casebook\Data\CaseCheck;
use LucidStep\App\Areas\Casebook\Data\PreviewPart;
use LucidStep\App\Areas\Casebook\Data\PreviewStep;
use LucidStep\App\Models\DataTable;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Data\Check;
use LucidStep\Core\Data\ExpandedStep;
use LucidStep\Core\Data\FilledPart;
use LucidStep\Core\Data\Problem;
use LucidStep\Core\Data\RoutineLoop;
use LucidStep\Core\Data\Routines;
use LucidStep\Core\Data\Template;
use LucidStep\Core\Data\TooManySteps;

/**
 * Finds what would go wrong in the walk of a case, and shows it as the tester will see it.
 */
final readonly class CheckCase
{
    /**
     * @param  ?DataTable  $table where it was read already
     *
     * @return list<Problem>
     */
    public function problems(string $project, CaseText $text, ?Routines $routines = null, ?DataTable $table = null): array
    {
        $table ??= $this->table($project, $text->table);
        $problems = $this->ofSteps($project, $text, $routines, $table);
        if (null !== $table && $table->rows->isEmpty()) {
            $problems[] = new Problem(
                null,
                'table',
                'warning',
                "\"{$table->name}\" has no rows yet, so there is nothing to walk this case with.",
            );
        }

        return $problems;
    }

    /**
     * Why the text cannot be walked, and so is neither approved nor planned.
     *
     * @param  ?DataTable  $table where it was read already
     *
     * @return list<string> a sentence each, with its step
     */
    public function errors(string $project, CaseText $text, ?Routines $routines = null, ?DataTable $table = null): array
    {
        $errors = array_filter(
            $this->ofSteps($project, $text, $routines, $table ?? $this->table($project, $text->table)),
            static fn(Problem $p): bool => 'error' === $p->severity,
        );

        return array_values(
            array_map(static fn(Problem $p): string => (null === $p->step ? '' : "Step {$p->step}: ") . $p->message, $errors),
        );
    }

    /**
     * @return list<Problem>
     */
    private function ofSteps(string $project, CaseText $text, ?Routines $routines, ?DataTable $table): array
    {
        $routines ??= RoutineBook::with($project, self::uses($text->steps));

        return match (true) {
            null === $text->table => (new Check($routines, []))->steps($text->steps),
            null === $table => [
                new Problem(null, 'table', 'error', 'The data table that this case is bound to is gone. Choose another, or none.'),
            ],
            default => (new Check($routines, array_column($table->columns, 'name'), "the data table \"{$table->name}\""))->steps(
                $text->steps,
            ),
        };
    }

    /**
     * @param  int  $row of its table, from 1
     */
    public function preview(string $project, CaseText $text, int $row): CaseCheck
    {
        $routines = RoutineBook::with($project, self::uses($text->steps));
        $table = $this->table($project, $text->table);
        $problems = $this->problems($project, $text, $routines, $table);
        $core = $table?->toCore();
        $rows = \count($core->rows ?? []);
        $row = max(1, min($row, $rows));
        $values = $rows > 0 && null !== $core ? $core->values($row - 1) : [];
        try {
            $steps = array_map(
                fn(int $i, ExpandedStep $s): PreviewStep => new PreviewStep(
                    $i + 1,
                    $s->routines,
                    $this->parts($s->step->action, $values, $core?->secrets() ?? []),
                    $this->parts($s->step->data, $values, $core?->secrets() ?? []),
                    $this->parts($s->step->expected, $values, $core?->secrets() ?? []),
                    ResourceMapper::files($s->step->files),
                ),
                array_keys($all = $routines->expand($text->steps)),
                $all,
            );
        } catch (RoutineLoop | TooManySteps $e) {
            $problems[] = new Problem(null, 'routine', 'error', $e->getMessage());
            $steps = [];
        }
        $label = null;
        foreach ($core->columns ?? [] as $column) {
            $label ??= $column->secret ? null : $values[mb_strtolower($column->name)] ?? null;
        }

        return new CaseCheck(ResourceMapper::problems($problems), $rows > 0 ? $row : 0, $rows, (string) $label, $steps);
    }

    /**
     * @param  list<Step>  $steps
     *
     * @return list<string>
     */
    public static function uses(array $steps): array
    {
        return array_values(array_filter(array_map(static fn(Step $s): ?string => $s->routine, $steps), is_string(...)));
    }

    private function table(string $project, ?string $id): ?DataTable
    {
        return null === $id ? null : DataTable::query()->where('project_id', $project)->whereNull('binned_at')->find($id);
    }

    /**
     * @param  array<string, string>  $values
     * @param  list<string>  $secrets
     *
     * @return list<PreviewPart>
     */
    private function parts(string $text, array $values, array $secrets): array
    {
        return array_map(
            static fn(FilledPart $p): PreviewPart => new PreviewPart(
                $p->shown(),
                $p->name,
                null !== $p->name && '' === $p->text,
                $p->secret,
            ),
            Template::parse($text)->fill($values, $secrets),
        );
    }
}
