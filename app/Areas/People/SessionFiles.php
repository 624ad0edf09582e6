<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People;

use Illuminate\Session\FileSessionHandler;

/**
 * Sessions as files, as the framework keeps them, but a session that was ended stays ended: a request that began before
 * the signing out and is over after it would write the session again, and whoever sits down next would be signed in.
 */
final class SessionFiles extends FileSessionHandler
{
    /** @var array<string, true> what was there when this request read it */
    private array $found = [];

    public function read($sessionId): string|false
    {
        $data = parent::read($sessionId);
        if (\is_string($data) && $data !== '') {
            $this->found[$sessionId] = true;
        }

        return $data;
    }

    public function write($sessionId, $data): bool
    {
        if (!isset($this->found[$sessionId])) {
            return parent::write($sessionId, $data);
        }
        // Opened without being made: what is gone meanwhile stays gone, also when it goes between here and the writing.
        $file = @fopen($this->path . '/' . $sessionId, 'r+');
        if ($file === false) {
            return true;
        }
        try {
            return flock($file, \LOCK_EX) && ftruncate($file, 0) && fwrite($file, $data) !== false;
        } finally {
            fclose($file);
        }
    }

    public function destroy($sessionId): bool
    {
        unset($this->found[$sessionId]);

        return parent::destroy($sessionId);
    }
}
