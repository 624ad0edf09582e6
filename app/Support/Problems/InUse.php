<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Problems;

use Illuminate\Support\Str;

/**
 * Something cannot go: others use it. It says who, and how it could go.
 */
final class InUse extends Conflict
{
    /**
     * @param  string  $why who uses it, as one or more sentences
     * @param  array<string, mixed>  $facts
     */
    public static function because(string $why, array $facts = []): self
    {
        return new self('in-use', $why, $facts);
    }

    /**
     * @param  list<mixed>  $uses where it is used
     * @param  string  $first what to do there first, such as "Take it out there first."
     */
    public static function inPlaces(string $name, array $uses, string $first): self
    {
        $count = \count($uses);

        return self::because("\"{$name}\" is used in {$count} " . Str::plural('place', $count) . ". {$first}", ['used_in' => $uses]);
    }

    /**
     * @param  string  $what it has or is used by, such as "it has 2 builds"
     */
    public static function stays(string $name, string $what): self
    {
        return self::because("“{$name}” stays: {$what}.");
    }
}
