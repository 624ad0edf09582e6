<?php

declare(strict_types=1);

namespace LucidStep\App\Console;

use Illuminate\Console\Command;
use Illuminate\Support\Facades\Artisan;
use LucidStep\App\Areas\People\Queries\DemoPeople;
use LucidStep\App\Models\Project;
use LucidStep\Demo\LoadDemo;

/**
 * Loads the demo.
 */
final class DemoCommand extends Command
{
    protected $signature =
        'lucid:demo {--if-empty : only when there is no project} {--fresh : empty the database first} ' .
        '{--sign-ins : only tell the sign-ins}';

    protected $description = 'Load the demo of the ferry line';

    public function handle(LoadDemo $load, DemoPeople $people): int
    {
        if (!config('lucid.demo')) {
            $this->error('This is not a demo (LUCID_DEMO). Nothing was touched.');

            return self::FAILURE;
        }
        if ($this->option('sign-ins')) {
            $this->line('Demo sign-ins, all with the password ' . DemoPeople::PASSWORD . ':');
            foreach ($people->all() as $person) {
                $this->line(\sprintf('  %-24s %s, %s', $person['email'], $person['name'], $person['role']));
            }

            return self::SUCCESS;
        }
        if ($this->option('fresh')) {
            Artisan::call('migrate:fresh', ['--force' => true, '--database' => 'owner']);
        } elseif (Project::query()->exists()) {
            $this->info('There is a project already; nothing to load.');

            return self::SUCCESS;
        }
        $load();
        $this->info('The demo is loaded.');

        return self::SUCCESS;
    }
}
