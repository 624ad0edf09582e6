<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Defect;
use LucidStep\Core\Defects\DefectState;

/**
 * Where a defect is to go, and what is said of it.
 */
final readonly class DefectMove
{
    /**
     * @param  ?string  $build for fixed: the build with the fix, by id
     * @param  ?Defect  $of   for duplicate: which one it is a duplicate of
     * @param  ?DefectState  $seen the state that the person saw; null: whatever it is
     * @param  bool  $anyway  close it although some that stand under it are open
     * @param  ?Attempt  $attempt the walk whose result moves it; null: somebody does
     */
    public function __construct(
        public DefectState $to,
        public string $note = '',
        public ?string $build = null,
        public ?Defect $of = null,
        public ?DefectState $seen = null,
        public bool $anyway = false,
        public ?Attempt $attempt = null,
    ) {}
}
