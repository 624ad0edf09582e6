<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

use LucidStep\Core\Casebook\Step;

/**
 * A named run of steps that many cases use.
 */
final readonly class Routine
{
    /**
     * @param  list<Parameter>  $parameters
     * @param  list<Step>  $steps
     */
    public function __construct(public string $id, public string $name, public array $parameters = [], public array $steps = []) {}

    /**
     * @return list<string> names in lower case
     */
    public function parameterKeys(): array
    {
        return array_map(static fn(Parameter $p): string => $p->key(), $this->parameters);
    }

    /**
     * @return list<string> ids of the routines it uses, each once
     */
    public function uses(): array
    {
        return array_values(
            array_unique(array_filter(array_map(static fn(Step $s): ?string => $s->routine, $this->steps), is_string(...))),
        );
    }
}
