<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Jobs;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use LucidStep\App\Models\StoredFile;

/**
 * Makes the small picture of a stored one.
 */
final class MakeThumbnail implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public function __construct(public readonly string $sha256) {}

    public function handle(Filesystem $files): void
    {
        $file = StoredFile::query()->find($this->sha256);
        if (null === $file || 'ready' === $file->thumbnail || null === $file->width || null === $file->height) {
            return;
        }
        $picture = @imagecreatefromstring((string) $files->get($file->path()));
        if (false === $picture) {
            $file->update(['thumbnail' => 'failed']);

            return;
        }
        $width = min((int) config('lucid.evidence.thumbnail_width'), $file->width);
        $small = imagescale($picture, $width, max(1, (int) round(($file->height * $width) / $file->width)), \IMG_BICUBIC);
        if (false === $small) {
            $file->update(['thumbnail' => 'failed']);

            return;
        }
        imagepalettetotruecolor($small);
        imagesavealpha($small, true);
        ob_start();
        imagewebp($small, null, 82);
        $files->put($file->thumbnailPath(), (string) ob_get_clean());
        $file->update(['thumbnail' => 'ready']);
    }

    public function failed(): void
    {
        StoredFile::query()
            ->whereKey($this->sha256)
            ->update(['thumbnail' => 'failed']);
    }
}
