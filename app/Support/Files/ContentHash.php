<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Files;

use Illuminate\Contracts\Filesystem\Filesystem;

/**
 * What a file in the storage holds, told by its content, piece by piece: recordings are large.
 */
final class ContentHash
{
    /**
     * @return ?string SHA-256 in hex; null when the file is not there
     */
    public static function of(Filesystem $files, string $path): ?string
    {
        $stream = $files->exists($path) ? $files->readStream($path) : null;
        if (null === $stream) {
            return null;
        }
        $hash = hash_init('sha256');
        hash_update_stream($hash, $stream);
        fclose($stream);

        return hash_final($hash);
    }
}
