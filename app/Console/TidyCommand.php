<?php

declare(strict_types=1);

namespace LucidStep\App\Console;

use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

/**
 * Drops what is only needed for a while: answers kept for repeated requests, and old changes of the feed.
 */
final class TidyCommand extends Command
{
    protected $signature = 'lucid:tidy';

    protected $description = 'Drop kept answers after 30 days and changes of the feed after 2';

    public function handle(): int
    {
        $keys = DB::table('idempotency_keys')->where('created_at', '<', now()->subDays(30))->delete();
        $changes = DB::table('changes')->where('at', '<', now()->subDays(2))->delete();
        $this->info("Dropped {$keys} answers and {$changes} changes.");

        return self::SUCCESS;
    }
}
