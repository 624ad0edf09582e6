<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Queries;

use LucidStep\App\Areas\Casebook\Data\CaseMessageLine;
use LucidStep\App\Areas\Casebook\Data\FileRef;
use LucidStep\App\Areas\Casebook\Data\ParameterLine;
use LucidStep\App\Areas\Casebook\Data\ProblemLine;
use LucidStep\App\Areas\Casebook\Data\RoutineText;
use LucidStep\App\Areas\Casebook\Data\StepEdit;
use LucidStep\App\Models\CaseMessage;
use LucidStep\App\Support\Data\Person;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Data\Parameter;
use LucidStep\Core\Data\Problem;
use LucidStep\Core\Data\Routine;

/**
 * Things of the core in the shapes of the API.
 */
final class ResourceMapper
{
    public static function step(Step $step): StepEdit
    {
        return new StepEdit($step->action, $step->data, $step->expected, self::files($step->files), $step->routine, (object) $step->values);
    }

    /**
     * @param  list<Step>  $steps
     *
     * @return list<StepEdit>
     */
    public static function steps(array $steps): array
    {
        return array_map(self::step(...), $steps);
    }

    /**
     * @param  list<array{sha256: string, name: string}>  $files
     *
     * @return list<FileRef>
     */
    public static function files(array $files): array
    {
        return array_map(static fn(array $f): FileRef => new FileRef($f['sha256'], $f['name']), $files);
    }

    /**
     * @param  list<Problem>  $problems
     *
     * @return list<ProblemLine>
     */
    public static function problems(array $problems): array
    {
        return array_map(
            static fn(Problem $p): ProblemLine => new ProblemLine($p->step, $p->field, $p->severity, $p->message, $p->name, $p->nearest),
            $problems,
        );
    }

    /**
     * @param  list<Parameter>  $parameters
     *
     * @return list<ParameterLine>
     */
    public static function parameters(array $parameters): array
    {
        return array_map(static fn(Parameter $p): ParameterLine => new ParameterLine($p->name, $p->default), $parameters);
    }

    public static function routine(Routine $routine): RoutineText
    {
        return new RoutineText($routine->id, $routine->name, self::parameters($routine->parameters), self::steps($routine->steps));
    }

    /**
     * @param  CaseMessage  $m with case, author, who answered and who took it out loaded
     */
    public static function message(CaseMessage $m): CaseMessageLine
    {
        return new CaseMessageLine(
            $m->id,
            $m->case_id,
            $m->case->key,
            $m->case->title,
            $m->step,
            $m->kind,
            $m->body,
            null === $m->proposal ? null : self::step(Step::fromArray($m->proposal)),
            Person::from($m->author),
            $m->state->value,
            $m->answer,
            Person::orNull($m->answeredBy),
            $m->created_at->toIso8601ZuluString(),
            $m->answered_at?->toIso8601ZuluString(),
            Person::orNull($m->removedBy),
            $m->removed_reason,
        );
    }
}
