<?php

declare(strict_types=1);

namespace LucidStep\Core\Results;

use LucidStep\Core\Verdict\Verdict;

/**
 * What a round of a finished attempt came to, among the others of its cell (case × configuration × data row).
 */
final readonly class CellResult
{
    /**
     * @param  ?string  $build  id; null: recorded on none
     * @param  ?int  $version of the case that was walked
     */
    public function __construct(public Verdict $verdict, public ?string $build = null, public ?int $version = null) {}

    public function isSamePlace(self $other): bool
    {
        return $this->build === $other->build && $this->version === $other->version;
    }
}
