<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Access;

/**
 * Goes on in an archived project: a preview, something taken out, or what is a person's own. {@see RequirePermission} refuses every
 * other write.
 */
#[\Attribute(\Attribute::TARGET_METHOD)]
final readonly class AllowedInArchive {}
