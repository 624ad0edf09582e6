<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * What an installation signs, word for word, so that no signature stands for anything else than it was made for.
 */
final class Signed
{
    public static function seal(string $attempt, int $sequence, string $head): string
    {
        return "lucid-step/2 seal\n{$attempt}\n{$sequence}\n{$head}";
    }

    /** The head of a cycle's chain. */
    public static function head(string $cycle, int $sequence, string $head): string
    {
        return "lucid-step/2 head\n{$cycle}\n{$sequence}\n{$head}";
    }

    /**
     * @param  string  $sha256 of the bundle's manifest
     */
    public static function bundle(string $sha256): string
    {
        return "lucid-step/2 bundle\n{$sha256}";
    }
}
