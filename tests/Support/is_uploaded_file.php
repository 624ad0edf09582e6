<?php

declare(strict_types=1);

namespace Symfony\Component\HttpFoundation\File;

/**
 * Files of tests count as uploaded, so that they can come in as the web server brings them, before the framework makes its own of
 * them.
 */
function is_uploaded_file(string $path): bool
{
    return is_file($path);
}
