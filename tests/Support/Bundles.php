<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use LucidStep\App\Support\Record\BundleChecker;

/**
 * Bundles unpacked, and checked as whoever gets one does.
 */
trait Bundles
{
    /**
     * The checker beside all bundles: a changed one is found by the one that was sent along with the others.
     */
    private function checker(): string
    {
        $path = sys_get_temp_dir() . '/lucid-checker-test.php';
        file_put_contents($path, BundleChecker::source());

        return $path;
    }

    private function unpack(string $zip): string
    {
        $dir = sys_get_temp_dir() . '/lucid-bundle-test-' . bin2hex(random_bytes(4));
        mkdir($dir);
        file_put_contents("{$dir}.zip", $zip);
        $archive = new \ZipArchive();
        self::assertTrue($archive->open("{$dir}.zip", \ZipArchive::CHECKCONS));
        $archive->extractTo($dir);
        $archive->close();
        unlink("{$dir}.zip");

        return $dir;
    }

    /**
     * @return array{int, string}
     */
    private function check(string $dir, ?string $checker = null, string $fingerprint = ''): array
    {
        exec(
            escapeshellarg(PHP_BINARY) .
                ' ' .
                escapeshellarg($checker ?? "{$dir}/check.php") .
                ' ' .
                escapeshellarg($dir) .
                " {$fingerprint} 2>&1",
            $lines,
            $code,
        );

        return [$code, implode("\n", $lines)];
    }
}
