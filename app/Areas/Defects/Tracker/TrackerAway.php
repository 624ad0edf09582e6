<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Tracker;

/**
 * The tracker did not answer, or not now: the call is tried again by itself.
 */
final class TrackerAway extends \RuntimeException
{
    public function __construct(public readonly ?int $status, string $message)
    {
        parent::__construct($message);
    }
}
