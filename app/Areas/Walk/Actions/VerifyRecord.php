<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Contracts\Filesystem\Filesystem;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Record\Journal;
use LucidStep\Core\Record\Verification;

/**
 * Checks an attempt's record: its events, its seal, and the content of every file it names.
 */
final readonly class VerifyRecord
{
    public function __construct(private Journal $journal, private Filesystem $files) {}

    public function __invoke(Attempt $attempt): Verification
    {
        $found = [];
        foreach (
            $attempt
                ->evidence()
                ->get(['sha256', 'marked_sha256'])
                ->flatMap(static fn(Evidence $e): array => [$e->sha256, $e->marked_sha256])
                ->filter()
                ->unique()
            as $sha256
        ) {
            $path = (new StoredFile(['sha256' => $sha256]))->path();
            $found[$sha256] = $this->files->exists($path) ? $this->hash($path) : null;
        }

        return $this->journal->verify($attempt, $found);
    }

    private function hash(string $path): ?string
    {
        $stream = $this->files->readStream($path);
        if ($stream === null) {
            return null;
        }
        $hash = hash_init('sha256');
        hash_update_stream($hash, $stream);
        fclose($stream);

        return hash_final($hash);
    }
}
