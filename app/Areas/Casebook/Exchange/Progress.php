<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Contracts\Cache\Repository;

/**
 * How far a job is, and whether it is to stop: outside the database, since what the job writes there is seen by
 * nobody until it is done.
 */
final readonly class Progress
{
    private const KEPT_SECONDS = 86_400;

    public function __construct(private Repository $cache) {}

    /**
     * @throws Cancelled when it is to stop
     */
    public function at(string $id, int $done): void
    {
        $this->cache->put("progress:{$id}", $done, self::KEPT_SECONDS);
        if (true === $this->cache->get("cancel:{$id}")) {
            throw new Cancelled();
        }
    }

    public function of(string $id): int
    {
        return (int) $this->cache->get("progress:{$id}", 0);
    }

    public function cancel(string $id): void
    {
        $this->cache->put("cancel:{$id}", true, self::KEPT_SECONDS);
    }
}
