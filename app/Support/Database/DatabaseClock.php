<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Database;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;

/**
 * Lets the database write down the same time as the application where that lives in another one: a demo tells what happened weeks ago, a
 * test what happens tomorrow. Otherwise the database goes by its own clock.
 */
final class DatabaseClock
{
    /**
     * From here on, whatever is written within a transaction; it ends with the transaction.
     */
    public static function follow(): void
    {
        $connection = DB::connection();
        $told = false;
        $connection->beforeExecuting(static function (string $sql) use ($connection, &$told): void {
            $writes = 1 === preg_match('/^\s*(insert|update|delete)\b/i', $sql);
            if ($writes && ($told || Carbon::hasTestNow()) && $connection->transactionLevel() > 0) {
                // Back among the others, it goes by its own clock again.
                $now = Carbon::hasTestNow() ? Carbon::now()->format('Y-m-d H:i:s.uP') : '';
                $connection
                    ->getPdo()
                    ->prepare("select set_config('lucid.now', ?, true)")
                    ->execute([$now]);
                $told = '' !== $now;
            }
        });
    }
}
