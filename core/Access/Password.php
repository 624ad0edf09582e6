<?php

declare(strict_types=1);

namespace LucidStep\Core\Access;

/**
 * What a password must be: long, and none that everybody tries. Nothing else is asked of it.
 */
final class Password
{
    public const SHORTEST = 12;

    /** Hashes read no more of it than this; it is said rather than cut. */
    public const LONGEST_BYTES = 72;

    /**
     * @return ?string why it cannot be one; null when it can
     */
    public static function problem(string $password, CommonPasswords $common): ?string
    {
        return match (true) {
            mb_strlen($password) < self::SHORTEST => \sprintf('Use at least %d characters. Some words in a row are fine.', self::SHORTEST),
            \strlen($password) > self::LONGEST_BYTES => \sprintf(
                'Use at most %d bytes: most characters are one, some are two to four.',
                self::LONGEST_BYTES,
            ),
            $common->has($password) => 'This is one of the commonest passwords, which are tried first. Choose another.',
            default => null,
        };
    }
}
