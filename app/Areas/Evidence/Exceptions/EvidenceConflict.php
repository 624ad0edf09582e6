<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Exceptions;

use LucidStep\App\Support\Problems\Conflict;

/**
 * What evidence does not allow as it is.
 */
final class EvidenceConflict extends Conflict
{
    public static function contentIsGone(): self
    {
        return new self('content-gone', 'The content of this picture was taken out.');
    }

    public static function linkHasNoContent(): self
    {
        return new self('no-content', 'A link has no content here. Take it off instead.');
    }
}
