<?php

declare(strict_types=1);

namespace LucidStep\Core\Casebook;

/**
 * A step on the one side and what became of it on the other.
 */
final readonly class StepPair
{
    /**
     * @param  ?int  $from where it stood, from 0; null when it is new
     * @param  ?int  $to   where it stands, from 0; null when it is gone
     * @param  'same'|'changed'|'moved'|'added'|'removed'  $is
     */
    public function __construct(public ?int $from, public ?int $to, public string $is) {}
}
