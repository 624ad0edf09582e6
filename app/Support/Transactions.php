<?php

declare(strict_types=1);

namespace LucidStep\App\Support;

use Illuminate\Support\Facades\DB;

/**
 * The transaction of an action: its own, or the one that is open already when an action is part of another, or of a request
 * whose answer is stored with it.
 */
final class Transactions
{
    /**
     * @template T
     *
     * @param  \Closure(): T  $work
     *
     * @return T
     */
    public static function run(\Closure $work): mixed
    {
        return 0 === DB::transactionLevel() ? DB::transaction($work) : $work();
    }
}
