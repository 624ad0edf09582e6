<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Casebook\CaseText;

/**
 * A case on its way out, with names instead of ids.
 */
final readonly class CaseOut
{
    /**
     * @param  list<string>  $folder       outermost first
     * @param  list<string>  $labels
     * @param  array<string, string>  $requirements titles by key
     * @param  array<string, string>  $custom       by name of the field
     * @param  array<string, string>  $routines     names by id, of those that its steps use
     */
    public function __construct(
        public string $key,
        public CaseText $text,
        public array $folder,
        public string $type,
        public string $priority,
        public CaseState $state,
        public bool $automated,
        public string $owner,
        public array $labels,
        public ?int $estimate,
        public array $requirements,
        public ?string $table,
        public bool $template,
        public array $custom,
        public array $routines,
    ) {}
}
