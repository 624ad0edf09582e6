<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Exceptions;

use LucidStep\App\Support\Problems\Conflict;

/**
 * What was asked of a requirement does not fit where it stands.
 */
final class RequirementConflict extends Conflict
{
    public static function othersStandBelow(string $key, int $count): self
    {
        return new self(
            'requirement-has-others-below',
            1 === $count
                ? "One requirement stands below {$key}. Move it elsewhere or drop it first; nothing was changed."
                : "{$count} requirements stand below {$key}. Move them elsewhere or drop them first; nothing was changed.",
            ['below' => $count],
        );
    }

    public static function isBelowADropped(string $key): self
    {
        return new self('requirement-below-dropped', "It stands below {$key}, which is dropped. Take that up again first.");
    }

    public static function isUndone(): self
    {
        return new self('undone', 'This import was taken back already.');
    }
}
