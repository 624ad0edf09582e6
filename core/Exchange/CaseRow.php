<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

/**
 * A case as it was read from a file.
 */
final readonly class CaseRow
{
    /**
     * @param  list<string>  $folder   the folder's path, outermost first
     * @param  list<string>  $labels
     * @param  ?int  $estimate whole seconds
     * @param  list<StepRow>  $steps
     * @param  int  $row      the row of the file on which it begins, from 1
     */
    public function __construct(
        public string $title,
        public array $folder,
        public string $objective,
        public string $preconditions,
        public string $postconditions,
        public string $type,
        public string $priority,
        public string $state,
        public array $labels,
        public ?int $estimate,
        public array $steps,
        public int $row,
    ) {
    }
}
