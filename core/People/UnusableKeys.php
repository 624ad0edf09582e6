<?php

declare(strict_types=1);

namespace LucidStep\Core\People;

/**
 * Keys that cannot be used so; the message says why, to whoever chose them.
 */
final class UnusableKeys extends \DomainException {}
