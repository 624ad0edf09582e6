<?php

declare(strict_types=1);

namespace LucidStep\Core\Access;

/**
 * What a browser says of itself, in words that tell one's devices apart, such as "Firefox on Windows".
 */
final class DeviceName
{
    /** The first that is named counts: most call themselves by the names of others too. */
    private const BROWSERS = [
        'Edg' => 'Edge',
        'OPR/' => 'Opera',
        'Firefox/' => 'Firefox',
        'FxiOS/' => 'Firefox',
        'CriOS/' => 'Chrome',
        'Chrome/' => 'Chrome or Chromium',
        'Safari/' => 'Safari',
    ];

    private const SYSTEMS = [
        'iPhone' => 'iPhone',
        'iPad' => 'iPad',
        'Android' => 'Android',
        'Windows' => 'Windows',
        'Mac OS X' => 'a Mac',
        'CrOS' => 'ChromeOS',
        'Linux' => 'Linux',
    ];

    public static function of(string $userAgent): string
    {
        $browser = self::first(self::BROWSERS, $userAgent) ?? 'A program';
        $system = self::first(self::SYSTEMS, $userAgent);

        return null === $system ? $browser : "{$browser} on {$system}";
    }

    /**
     * @param  array<string, string>  $names by what it is told by
     */
    private static function first(array $names, string $userAgent): ?string
    {
        foreach ($names as $sign => $name) {
            if (str_contains($userAgent, $sign)) {
                return $name;
            }
        }

        return null;
    }
}
