<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Evidence\Queries\StorageUse;

/**
 * Sees to it that a project keeps no more than it may.
 */
final class CheckStorage
{
    /**
     * @param  int  $bytes that are to be added
     *
     * @throws ValidationException when there is no room for them
     */
    public function __invoke(string $project, int $bytes): void
    {
        $limit = DB::table('projects')->where('id', $project)->value('storage_limit_mb');
        if (null !== $limit && 0 < $bytes && StorageUse::bytes($project) + $bytes > $limit * 1_048_576) {
            throw ValidationException::withMessages([
                'file' =>
                    "The project keeps at most {$limit} MB of evidence and has no room for this. " .
                    'It stays on your device; ask an admin for room, then send it again.',
            ]);
        }
    }
}
