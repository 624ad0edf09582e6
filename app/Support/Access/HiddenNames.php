<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Access;

/**
 * Whether whoever reads may not see who did what: for the length of a request, told where the address lets them in.
 */
final class HiddenNames
{
    /** What somebody is called by who may not see their name. */
    private const NAMELESS = 'A tester';

    public bool $areHidden = false;

    /**
     * @return string the name as whoever reads may see it
     */
    public static function shown(string $name): string
    {
        return app(self::class)->areHidden ? self::NAMELESS : $name;
    }
}
