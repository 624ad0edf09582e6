<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

/**
 * The person stopped a job.
 */
final class Cancelled extends \RuntimeException {}
