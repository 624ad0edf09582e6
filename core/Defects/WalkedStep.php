<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

use LucidStep\Core\Verdict\Verdict;

/**
 * A step as it was walked, with its data filled in.
 */
final readonly class WalkedStep
{
    /**
     * @param  int  $number as in the case, from 1
     * @param  int  $tries  how often it was tried before it was judged
     * @param  int  $failedTries how often it failed then
     * @param  string  $waitsOn what a block waits for
     */
    public function __construct(
        public int $number,
        public string $action,
        public string $data,
        public string $expected,
        public Verdict $verdict,
        public int $tries = 0,
        public int $failedTries = 0,
        public string $waitsOn = '',
    ) {}

    /**
     * Its verdict in Markdown, with what there is to say of it.
     */
    public function outcome(): string
    {
        $parts = ["**{$this->verdict->label()}**"];
        if ($this->tries > 0) {
            $parts[] = "fails {$this->failedTries} of {$this->tries}";
        }
        if ('' !== trim($this->waitsOn)) {
            $parts[] = 'waits on ' . trim($this->waitsOn);
        }

        return implode(', ', $parts);
    }
}
