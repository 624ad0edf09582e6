<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

use LucidStep\Core\Casebook\Step;

/**
 * The routines of a project, and the steps that come of them.
 */
final readonly class Routines
{
    public const MOST_STEPS = 1000;

    /** @var array<string, Routine> */
    private array $byId;

    /**
     * @param  iterable<Routine>  $routines
     */
    public function __construct(iterable $routines)
    {
        $byId = [];
        foreach ($routines as $routine) {
            $byId[$routine->id] = $routine;
        }
        $this->byId = $byId;
    }

    public function find(string $id): ?Routine
    {
        return $this->byId[$id] ?? null;
    }

    /**
     * @throws RoutineLoop when a routine stands within itself, directly or through others
     */
    public function refuseLoops(): void
    {
        $done = [];
        foreach ($this->byId as $routine) {
            $this->visit($routine, [], $done);
        }
    }

    /**
     * Writes routines out. A routine's parameters hide columns of the same name inside it; a parameter's value is
     * put in first and may hold places of its own. Uses of routines that are not there any more are left out.
     *
     * @param  list<Step>  $steps
     *
     *
     * @throws RoutineLoop
     * @throws TooManySteps
     * @return list<ExpandedStep>
     */
    public function expand(array $steps): array
    {
        $out = [];
        foreach ($steps as $i => $step) {
            $this->write($step, $i + 1, [], [], $out);
        }

        return $out;
    }

    /**
     * @param  array<string, Template>  $scope   what stands for the parameters around it
     * @param  list<Routine>  $around
     * @param  list<ExpandedStep>  $out
     */
    private function write(Step $step, int $position, array $scope, array $around, array &$out): void
    {
        if (null === $step->routine) {
            if (\count($out) >= self::MOST_STEPS) {
                throw TooManySteps::over(self::MOST_STEPS);
            }
            $fill = static fn(string $text): string => [] === $scope ? $text : Template::parse($text)->with($scope)->source();
            $out[] = new ExpandedStep(
                $step->with($fill($step->action), $fill($step->data), $fill($step->expected)),
                $position,
                array_map(static fn(Routine $r): string => $r->name, $around),
            );

            return;
        }
        $routine = $this->byId[$step->routine] ?? null;
        if (null === $routine) {
            return;
        }
        if (\in_array($routine, $around, true)) {
            throw new RoutineLoop($this->names([...$around, $routine]));
        }
        $inner = [];
        foreach ($routine->parameters as $parameter) {
            $inner[$parameter->key()] = Template::parse($step->values[$parameter->key()] ?? $parameter->default)->with($scope);
        }
        foreach ($routine->steps as $own) {
            $this->write($own, $position, $inner, [...$around, $routine], $out);
        }
    }

    /**
     * @param  list<Routine>  $path
     * @param  array<string, true>  $done
     */
    private function visit(Routine $routine, array $path, array &$done): void
    {
        if (\in_array($routine, $path, true)) {
            throw new RoutineLoop($this->names([...$path, $routine]));
        }
        if (isset($done[$routine->id])) {
            return;
        }
        foreach ($routine->uses() as $id) {
            $used = $this->byId[$id] ?? null;
            if (null !== $used) {
                $this->visit($used, [...$path, $routine], $done);
            }
        }
        $done[$routine->id] = true;
    }

    /**
     * @param  non-empty-list<Routine>  $path its last stands in it before
     *
     * @return non-empty-list<string>
     */
    private function names(array $path): array
    {
        $from = (int) array_search($path[\count($path) - 1], $path, true);
        $names = array_map(static fn(Routine $r): string => $r->name, \array_slice($path, $from));

        return [] === $names ? [''] : $names;
    }
}
