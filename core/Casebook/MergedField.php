<?php

declare(strict_types=1);

namespace LucidStep\Core\Casebook;

/**
 * One text in a three-way view.
 */
final readonly class MergedField
{
    /**
     * @param  'same'|'mine'|'theirs'|'conflict'  $outcome
     * @param  string  $result what is proposed; mine where they conflict
     */
    public function __construct(
        public string $outcome,
        public string $base,
        public string $mine,
        public string $theirs,
        public string $result,
    ) {}

    public static function of(string $base, string $mine, string $theirs): self
    {
        return match (true) {
            $mine === $theirs => new self('same', $base, $mine, $theirs, $mine),
            $mine === $base => new self('theirs', $base, $mine, $theirs, $theirs),
            $theirs === $base => new self('mine', $base, $mine, $theirs, $mine),
            default => new self('conflict', $base, $mine, $theirs, $mine),
        };
    }
}
