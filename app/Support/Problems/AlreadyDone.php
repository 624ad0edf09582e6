<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Problems;

/**
 * What is asked for was done before.
 */
final class AlreadyDone extends Conflict
{
    public static function undone(): self
    {
        return new self('undone', 'This was undone already.');
    }

    public static function answered(): self
    {
        return new self('answered', 'This was answered already.');
    }

    /**
     * @param  string  $how such as "accepted"
     */
    public static function decided(string $how): self
    {
        return new self('judged', "This was {$how} already.");
    }

    public static function sent(): self
    {
        return new self('sent-already', 'This was sent or left out already.');
    }

    public static function removed(): self
    {
        return new self('removed-already', 'This text was taken out already.');
    }
}
