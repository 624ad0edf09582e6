<?php

declare(strict_types=1);

namespace LucidStep\App\Console;

use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Support\Database\DatabaseRights;

/**
 * Says whether the database keeps what the application promises.
 */
final class CheckDatabaseCommand extends Command
{
    protected $signature = 'lucid:check-database';

    protected $description = 'Check that the role of the application may not change what was recorded';

    public function handle(): int
    {
        $problems = DatabaseRights::problems(DB::connection());
        if ([] === $problems) {
            $this->info('The role of the application may add to the record and not change it.');

            return self::SUCCESS;
        }
        foreach (\array_slice($problems, 0, 10) as $problem) {
            $this->error($problem);
        }
        $this->line(
            'Two roles are needed, neither a superuser: one that owns the database, in DATABASE_OWNER_URL, as which migrations run,',
        );
        $this->line('and one for the application, in DATABASE_URL. As an administrator:');
        $this->line("  create role lucid_owner login password '…';");
        $this->line("  create role lucid_app login password '…';");
        $this->line('  create database lucid owner lucid_owner;');

        return self::FAILURE;
    }
}
