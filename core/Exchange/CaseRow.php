<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Casebook\Step;

/**
 * A case as a file has it: only what its columns say.
 */
final readonly class CaseRow
{
    /**
     * @param  int  $row    the record on which it begins, from 1 (the header is 1)
     * @param  ?string  $key    upper case
     * @param  array<string, mixed>  $fields by target of {@see CaseColumns}: texts; `folder`, `labels` and `requirements`
     *     lists; `estimate` seconds or null; `automated` and `template` bool; `owner` and `table` ids or null; custom
     *     fields by `field: <name>`; `needs` kinds of conditions by the key of the case that is needed
     * @param  ?list<Step>  $steps  null when the file has no column for steps
     * @param  list<ReadError>  $errors
     */
    public function __construct(public int $row, public ?string $key, public array $fields, public ?array $steps, public array $errors) {}

    public function title(): string
    {
        return \is_string($this->fields['title'] ?? null) ? $this->fields['title'] : '';
    }
}
