<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Problems;

use Illuminate\Validation\ValidationException;

/**
 * Somebody saved the same thing while it was being written: the later one has to look first.
 */
final class SavedMeanwhile extends Conflict
{
    /**
     * @param  ?int  $began the revision that the person began from
     * @param  int  $now   the one that is there
     * @param  string  $what such as "this routine"
     *
     * @throws ValidationException when they do not say
     */
    public static function check(?int $began, int $now, string $what): void
    {
        if (null === $began) {
            throw ValidationException::withMessages(['revision' => 'Say which revision you began from.']);
        }
        if ($began !== $now) {
            throw self::of($what, $now);
        }
    }

    /**
     * @param  string  $what such as "this routine"
     * @param  int  $revision the one that is there now
     */
    public static function of(string $what, int $revision): self
    {
        return self::told(
            "Somebody saved {$what} while you were writing. What you typed is kept on this device: load the page again and compare.",
            $revision,
        );
    }

    public static function ofCase(?string $by, int $revision): self
    {
        $by ??= 'Somebody';

        return self::told("{$by} saved this case while you were writing. Nothing of yours is lost: bring both together.", $revision);
    }

    public static function beforeExtracting(int $revision): self
    {
        return self::told('The case was saved by another meanwhile. Load it again and choose the steps again.', $revision);
    }

    private static function told(string $message, int $revision): self
    {
        return new self('saved-meanwhile', $message, ['revision' => $revision], 412);
    }
}
