<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Exceptions;

/**
 * What is recorded comes too late to be applied, and has to be kept with the cycle locked. Nothing of it was done yet.
 */
final class ArrivedLate extends \RuntimeException {}
