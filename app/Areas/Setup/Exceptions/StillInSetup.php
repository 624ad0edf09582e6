<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Exceptions;

use LucidStep\App\Support\Problems\Conflict;

/**
 * What is to be taken out of the log of the setup stands in the setup.
 */
final class StillInSetup extends Conflict
{
    public static function words(string $text): self
    {
        $shown = mb_strlen($text) > 60 ? mb_substr($text, 0, 59) . '…' : $text;

        return new self('still-in-setup', "“{$shown}” stands in the setup now. Change it there first, then take it out of the log.");
    }
}
