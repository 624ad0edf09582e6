<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

use LucidStep\Core\Casebook\Step;

/**
 * Finds what is wrong with the places in a case before anybody walks it.
 */
final readonly class Check
{
    /**
     * @param  list<string>  $columns of the data table the steps are bound to, or the parameters of the routine they stand in
     * @param  ?string  $of      what the names belong to, for the message
     */
    public function __construct(private Routines $routines, private array $columns, private ?string $of = null) {}

    /**
     * @param  list<Step>  $steps
     *
     * @return list<Problem> in the order of the steps
     */
    public function steps(array $steps): array
    {
        $problems = [];
        $known = array_map(mb_strtolower(...), $this->columns);
        foreach ($steps as $i => $step) {
            if (null === $step->routine) {
                foreach (['action' => $step->action, 'data' => $step->data, 'expected' => $step->expected] as $field => $text) {
                    array_push($problems, ...$this->text($text, $i + 1, $field, $known));
                }

                continue;
            }
            array_push($problems, ...$this->routine($step, $i + 1, $known));
        }

        return $problems;
    }

    /**
     * @param  list<string>  $known
     *
     * @return list<Problem>
     */
    private function routine(Step $step, int $position, array $known): array
    {
        $routine = $this->routines->find((string) $step->routine);
        if (null === $routine) {
            return [
                new Problem(
                    $position,
                    'routine',
                    'error',
                    'The routine that stood here is gone. Take the step out, or choose another routine.',
                ),
            ];
        }
        $problems = [];
        $parameters = $routine->parameterKeys();
        foreach ($step->values as $name => $value) {
            if (!\in_array((string) $name, $parameters, true)) {
                $problems[] = new Problem(
                    $position,
                    "values.{$name}",
                    'error',
                    "\"{$routine->name}\" has no parameter \"{$name}\".",
                    (string) $name,
                    Names::nearest((string) $name, $parameters),
                );
            }
            array_push($problems, ...$this->text($value, $position, "values.{$name}", $known));
        }
        // What the routine itself asks for beyond its parameters must come from the case's table.
        foreach ($this->open($routine, []) as $name => $where) {
            if (!\in_array((string) $name, $known, true)) {
                $problems[] = $this->unknown((string) $name, $position, 'routine', " in the routine \"{$where}\"");
            }
        }

        return $problems;
    }

    /**
     * Names that a routine takes from outside itself, with the routine in which each stands.
     *
     * @param  list<string>  $around
     *
     * @return array<string, string>
     */
    private function open(Routine $routine, array $around): array
    {
        if (\in_array($routine->id, $around, true)) {
            return [];
        }
        $open = [];
        foreach ($routine->steps as $step) {
            $texts = null === $step->routine ? [$step->action, $step->data, $step->expected] : array_values($step->values);
            foreach ($texts as $text) {
                foreach (Template::parse($text)->names() as $name) {
                    $open[$name] ??= $routine->name;
                }
            }
            $inner = null === $step->routine ? null : $this->routines->find($step->routine);
            if (null !== $inner) {
                $open += $this->open($inner, [...$around, $routine->id]);
            }
        }

        return array_diff_key($open, array_flip($routine->parameterKeys()));
    }

    /**
     * @param  list<string>  $known
     *
     * @return list<Problem>
     */
    private function text(string $text, int $step, string $field, array $known): array
    {
        $template = Template::parse($text);
        $problems = array_map(static fn(string $w): Problem => new Problem($step, $field, 'warning', $w), $template->warnings);
        foreach ($template->names() as $name) {
            if (!\in_array($name, $known, true)) {
                $problems[] = $this->unknown($name, $step, $field);
            }
        }

        return $problems;
    }

    private function unknown(string $name, int $step, string $field, string $where = ''): Problem
    {
        $nearest = Names::nearest($name, $this->columns);
        $why = match (true) {
            null !== $nearest => " Did you mean {{{$nearest}}}?",
            null === $this->of => ' This case is bound to no data table.',
            default => '',
        };

        return new Problem(
            $step,
            $field,
            'error',
            "{{{$name}}}{$where} is not known" . (null === $this->of ? '.' : " in {$this->of}.") . $why,
            $name,
            $nearest,
        );
    }
}
