<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

/**
 * Names of columns and parameters.
 */
final class Names
{
    public const LONGEST = 60;

    public static function isName(string $name): bool
    {
        return 1 === preg_match('/^[\p{L}\p{N}_]{1,' . self::LONGEST . '}$/Du', $name);
    }

    /**
     * The known name that is least edits away, null when none is near (more than half of it would change).
     *
     * @param  iterable<string>  $known
     */
    public static function nearest(string $name, iterable $known): ?string
    {
        $best = null;
        $least = intdiv(mb_strlen($name) + 1, 2) + 1;
        foreach ($known as $candidate) {
            $edits = levenshtein(mb_strtolower(mb_substr($name, 0, 80)), mb_strtolower(mb_substr($candidate, 0, 80)));
            if ($edits < $least) {
                $least = $edits;
                $best = $candidate;
            }
        }

        return $best;
    }
}
