<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Exceptions;

use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Defects\DefectState;

/**
 * What a defect does not allow as it stands.
 */
final class DefectConflict extends Conflict
{
    public static function noSuchMove(DefectState $from, DefectState $to): self
    {
        $words = static fn(DefectState $s): string => str_replace('_', ' ', $s->value);

        return new self('no-such-move', "The defect is {$words($from)} now; it cannot become {$words($to)} from there.", [
            'state' => $from->value,
        ]);
    }
}
