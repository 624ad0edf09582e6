<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * One thing that configurations differ in, such as the device, with its values.
 */
final readonly class Axis
{
    /** @var non-empty-list<string> */
    public array $values;

    /**
     * @param  list<string>  $values different from each other
     *
     * @throws BadAxes when there is no value, or one twice
     */
    public function __construct(public string $name, array $values)
    {
        if ([] === $values) {
            throw BadAxes::empty($name);
        }
        if (\count(array_unique($values)) < \count($values)) {
            throw BadAxes::twice($name);
        }
        $this->values = $values;
    }
}
