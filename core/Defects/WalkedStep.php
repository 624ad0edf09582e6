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
     */
    public function __construct(
        public int $number,
        public string $action,
        public string $data,
        public string $expected,
        public Verdict $verdict,
    ) {}
}
