<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\Core\Defects\DefectField;
use LucidStep\Core\Text\ItemList;

/**
 * What is to be changed in many defects at once.
 */
final readonly class ManyChanges
{
    /**
     * @param  array<string, ?string>  $fields by field
     * @param  list<string>  $add    labels
     * @param  list<string>  $remove labels
     */
    public function __construct(public array $fields, private array $add, private array $remove, public ?DefectMove $move) {}

    /**
     * The labels of one of them afterwards.
     *
     * @param  string  $now between commas
     *
     * @return array<string, string> by field; none where no label is added or taken off
     */
    public function labels(string $now): array
    {
        if ([] === $this->add && [] === $this->remove) {
            return [];
        }
        $labels = [];
        foreach ([...ItemList::read($now), ...$this->add] as $label) {
            $labels[mb_strtolower($label)] ??= $label;
        }
        foreach ($this->remove as $label) {
            unset($labels[mb_strtolower($label)]);
        }

        return [DefectField::Labels->value => ItemList::write(array_values($labels))];
    }
}
