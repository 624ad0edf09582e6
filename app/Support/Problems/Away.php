<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Problems;

use League\Flysystem\FilesystemException;

/**
 * Tells apart what the application needs and cannot reach for now from what is wrong with it.
 */
final class Away
{
    /** SQLSTATE: no connection, out of room or memory or connections, being shut down or started. */
    private const DATABASE = '/SQLSTATE\[(08|53|57P)/';

    /** What the driver says of a connection that broke off, under its general state. */
    private const BROKEN = '/server closed the connection|no connection to the server|connection refused|could not connect|SSL conn/i';

    /** SQLSTATE: two transactions waited for each other, or one had to give way. */
    private const GAVE_WAY = '/SQLSTATE\[40/';

    /**
     * @return ?array{string, int} what is away, and in how many seconds to try again; null when nothing is
     */
    public static function of(\Throwable $e): ?array
    {
        return match (true) {
            $e instanceof \PDOException && 1 === preg_match(self::GAVE_WAY, $e->getMessage()) => ['the database is busy with another', 1],
            $e instanceof \PDOException &&
                (1 === preg_match(self::DATABASE, $e->getMessage()) ||
                    (1 === preg_match('/SQLSTATE\[HY000\]/', $e->getMessage()) && 1 === preg_match(self::BROKEN, $e->getMessage())))
                => ['the database cannot be reached', 5],
            $e instanceof FilesystemException => ['the storage of files cannot be written or read', 15],
            default => null,
        };
    }
}
