<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;

/**
 * Where a command is applied: the attempt, locked by the transaction, who did it, and when by their device.
 */
final readonly class CommandContext
{
    public function __construct(public Attempt $attempt, public User $actor, public DeviceStamp $stamp) {}
}
