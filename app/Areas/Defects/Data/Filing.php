<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Models\TestCase;

/**
 * A defect that somebody files: what it says, and where it was met.
 */
final readonly class Filing
{
    /**
     * @param  array<string, ?string>  $fields by field, as {@see \LucidStep\Core\Defects\DefectField} names them
     * @param  ?string  $id    as the device made it; null: a new one
     * @param  ?Attempt  $from  the walk it was met on; null: on none
     * @param  ?int  $round of that walk
     * @param  ?int  $step  of that round; null: the whole
     * @param  ?list<string>  $evidence of the walk, by id; null: all of the step, also what is still to come
     * @param  ?TestCase  $case  that it is about, where it was met on no walk
     * @param  list<string>  $watchers who is told of it, by id
     * @param  ?SessionLine  $seen     the line of a session that shows it
     * @param  list<string>  $captures of that session, by line, to go with it
     */
    public function __construct(
        public array $fields,
        public ?string $id = null,
        public ?Attempt $from = null,
        public ?int $round = null,
        public ?int $step = null,
        public ?array $evidence = null,
        public ?TestCase $case = null,
        public array $watchers = [],
        public ?SessionLine $seen = null,
        public array $captures = [],
    ) {}
}
