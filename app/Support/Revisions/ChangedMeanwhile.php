<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Revisions;

use LucidStep\App\Support\Problems\Conflict;

/**
 * Somebody else changed what is replaced since it was read.
 */
final class ChangedMeanwhile extends Conflict
{
    /**
     * @param  string  $what such as `this list`
     * @param  string  $seen the fingerprint of how it is now
     */
    public static function of(string $what, string $seen): self
    {
        return new self(
            'changed-meanwhile',
            "Somebody else changed {$what} since you opened it. What you typed is still here: look at how it is now, in another " .
                'window for instance, then save again.',
            ['seen' => $seen],
            412,
        );
    }
}
