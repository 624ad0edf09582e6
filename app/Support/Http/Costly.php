<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

/**
 * Marks what takes the server much longer than other requests. A person does one such thing at a time, and not too often
 * ({@see OneAtATime}), so that nobody takes all of the server's workers.
 */
#[\Attribute(\Attribute::TARGET_METHOD)]
final readonly class Costly {}
