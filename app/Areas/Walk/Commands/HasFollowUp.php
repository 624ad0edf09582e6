<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;

/**
 * A handler with something left to do once attempt and entry are saved.
 */
interface HasFollowUp
{
    public function followUp(Attempt $attempt, Entry $entry): void;
}
