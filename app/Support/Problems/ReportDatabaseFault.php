<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Problems;

use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\Log;

/**
 * Writes a fault of the database to the log without the values: they are what people typed, and may be secret.
 */
final class ReportDatabaseFault
{
    public static function report(QueryException $e): void
    {
        Log::error('The database refused a query.', [
            'sqlstate' => $e->errorInfo[0] ?? (string) $e->getCode(),
            'sql' => self::withoutValues($e->getSql()),
            'constraint' => self::constraint($e),
            'at' => self::place($e),
        ]);
    }

    /**
     * Literals that stand in the SQL itself are left out too.
     */
    private static function withoutValues(string $sql): string
    {
        return mb_strimwidth((string) preg_replace(["/'(?:[^']|'')*'/", '/\b\d+\b/'], ["'…'", '0'], $sql), 0, 2000, '…');
    }

    private static function constraint(QueryException $e): ?string
    {
        return 1 === preg_match('/constraint "([a-z0-9_]+)"/', (string) ($e->errorInfo[2] ?? ''), $m) ? $m[1] : null;
    }

    /**
     * The first lines of the application's own that led there.
     *
     * @return list<string>
     */
    private static function place(QueryException $e): array
    {
        $base = base_path() . '/';
        $own = [];
        foreach ([['file' => $e->getFile(), 'line' => $e->getLine()], ...$e->getTrace()] as $call) {
            $file = $call['file'] ?? '';
            if (str_starts_with($file, $base) && !str_starts_with($file, "{$base}vendor/")) {
                $own[] = substr($file, \strlen($base)) . ':' . ($call['line'] ?? 0);
            }
        }

        return \array_slice($own, 0, 5);
    }
}
