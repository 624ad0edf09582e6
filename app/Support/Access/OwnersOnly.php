<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Access;

/**
 * For owners of the installation, whatever their part in any project. {@see RequirePermission} refuses others.
 */
#[\Attribute(\Attribute::TARGET_METHOD)]
final readonly class OwnersOnly {}
