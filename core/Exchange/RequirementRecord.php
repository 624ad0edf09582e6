<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Coverage\RequirementWords;

/**
 * A requirement as a file has it.
 */
final readonly class RequirementRecord
{
    /**
     * @param  int  $row where it stands in the file, from 1
     * @param  string  $key   of this product; empty: the file names none
     * @param  string  $parent what the file calls the one above it, by key or identifier; empty: none
     * @param  ?int  $parentRow the row of the one above it, where the file says it by place
     * @param  list<string>  $says of `title`, `text`, `external_id`, `parent`: what the file says at all; the rest stays as it is
     */
    public function __construct(
        public int $row,
        public string $key,
        public RequirementWords $words,
        public string $parent = '',
        public ?int $parentRow = null,
        public array $says = ['title', 'text', 'external_id', 'parent'],
    ) {}
}
