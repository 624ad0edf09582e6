<?php

declare(strict_types=1);

namespace LucidStep\Core\Execution;

use LucidStep\Core\Casebook\Comparison;
use LucidStep\Core\Casebook\Step;

/**
 * What an open attempt keeps when its case's new version is taken: verdicts of steps that did not change.
 */
final class Carried
{
    /**
     * @param  list<Step>  $walked the steps as the attempt has them, routines written out
     * @param  list<Step>  $now    those of the new version
     *
     * @return array<int, int> where each unchanged step stood, by where it stands now; both from 0
     */
    public static function steps(array $walked, array $now): array
    {
        $kept = [];
        foreach (Comparison::steps($walked, $now) as $pair) {
            if (null !== $pair->from && null !== $pair->to && $walked[$pair->from]->equals($now[$pair->to])) {
                $kept[$pair->to] = $pair->from;
            }
        }

        return $kept;
    }
}
