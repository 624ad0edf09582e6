<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Tracker;

/**
 * An answer that is longer than is read.
 */
final class TooMuch extends \RuntimeException {}
