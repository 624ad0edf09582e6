<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Actions;

use Illuminate\Contracts\Filesystem\Filesystem;
use LucidStep\App\Areas\Evidence\Queries\FileUse;
use LucidStep\App\Models\StoredFile;

/**
 * Takes the content of files out of the storage, with the pictures made from them.
 */
final readonly class DropFiles
{
    public function __construct(private Filesystem $files) {}

    /**
     * @param  list<string>  $hashes SHA-256 of each; those that something still shows stay
     * @param  ?string  $besides a project that does not count, for what it shows was taken out
     *
     * @return list<string> what was dropped
     */
    public function __invoke(array $hashes, ?string $besides = null): array
    {
        $unused = FileUse::unused($hashes, $besides);
        foreach ($unused as $sha256) {
            $file = new StoredFile(['sha256' => $sha256]);
            $this->files->delete([$file->path(), $file->thumbnailPath()]);
        }
        StoredFile::query()
            ->whereKey($unused)
            ->update(['thumbnail' => 'none']);

        return $unused;
    }
}
