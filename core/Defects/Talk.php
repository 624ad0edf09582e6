<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * What is said of a defect: its author mends it for a while, then it stands.
 */
final class Talk
{
    /** In minutes. */
    public const MENDED_WITHIN = 15;

    public static function standsAt(\DateTimeInterface $said): \DateTimeImmutable
    {
        return \DateTimeImmutable::createFromInterface($said)->modify('+' . self::MENDED_WITHIN . ' minutes');
    }
}
