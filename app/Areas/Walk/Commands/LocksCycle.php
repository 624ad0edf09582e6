<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

/**
 * A command whose handler writes into the chain of the cycle: the cycle is locked before the entry, in the order in which
 * plans are changed.
 */
interface LocksCycle {}
