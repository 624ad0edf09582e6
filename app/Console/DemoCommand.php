<?php

declare(strict_types=1);

namespace LucidStep\App\Console;

use Illuminate\Console\Command;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Str;
use LucidStep\App\Areas\People\Actions\EndSessions;
use LucidStep\App\Areas\People\Actions\RemoveDemo;
use LucidStep\App\Areas\People\Queries\DemoPeople;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Demo\LoadDemo;

/**
 * Loads the demo.
 */
final class DemoCommand extends Command
{
    protected $signature =
        'lucid:demo {--if-empty : only when there is no project} {--fresh : empty the database first} ' .
        '{--sign-ins : only tell the sign-ins} {--close : let nobody of the demo sign in any more} ' .
        '{--add= : bring it into an installation, for whoever has this mail address} {--remove : take it out again}';

    protected $description = 'Load the demo of the ferry line';

    public function __construct(private readonly EndSessions $sessions)
    {
        parent::__construct();
    }

    public function handle(LoadDemo $load, DemoPeople $people, RemoveDemo $remove): int
    {
        if (\is_string($this->option('add'))) {
            return $this->add($load, $people, $this->option('add'));
        }
        if ($this->option('remove')) {
            return $this->remove($remove);
        }
        if ($this->option('close')) {
            $this->close($people);

            return self::SUCCESS;
        }
        if (!config('lucid.demo')) {
            $this->error('This is not a demo (LUCID_DEMO). Nothing was touched.');

            return self::FAILURE;
        }
        if ($this->option('sign-ins')) {
            $this->line('Demo sign-ins, all with the password ' . DemoPeople::password() . ':');
            foreach ($people->all() as $person) {
                $this->line(\sprintf('  %-24s %s, %s', $person['email'], $person['name'], $person['role']));
            }

            return self::SUCCESS;
        }
        if ($this->option('fresh')) {
            Artisan::call('migrate:fresh', ['--force' => true, '--database' => 'owner']);
        } elseif (Project::query()->exists()) {
            $this->open($people);
            $this->info('There is a project already; nothing to load.');

            return self::SUCCESS;
        }
        $load();
        $this->info('The demo is loaded.');

        return self::SUCCESS;
    }

    /**
     * Brings the demo as one project into an installation. Nobody signs in as its people, and no mail goes to them.
     */
    private function add(LoadDemo $load, DemoPeople $people, string $email): int
    {
        $for = User::query()
            ->where('email', Str::lower(trim($email)))
            ->first();
        $problem = match (true) {
            null === $for => "Nobody has the mail address {$email}.",
            Project::query()->where('code', 'SKR')->exists() => 'There is a project SKR already.',
            $this->of($people)->isNotEmpty() => 'Somebody of the demo has an account already.',
            default => null,
        };
        if (null !== $problem) {
            $this->error("{$problem} Nothing was touched.");

            return self::FAILURE;
        }
        $load($for);
        $this->info("The demo is there, as the project SKR, for {$email}.");

        return self::SUCCESS;
    }

    private function remove(RemoveDemo $remove): int
    {
        if (config('lucid.demo')) {
            $this->error('This installation is the demo. Nothing was touched.');

            return self::FAILURE;
        }
        foreach ($remove() as $email) {
            $this->line("{$email} stays: they have part in something else.");
        }
        $this->info('The demo is not there any more.');

        return self::SUCCESS;
    }

    /**
     * Gives the people of the demo the password of this installation.
     */
    private function open(DemoPeople $people): void
    {
        foreach ($this->of($people) as $user) {
            if (!Hash::check(DemoPeople::password(), $user->password)) {
                $user->forceFill(['password' => DemoPeople::password()])->save();
            }
        }
    }

    /**
     * Takes the people of the demo their password, their tokens and whatever session is open.
     */
    private function close(DemoPeople $people): void
    {
        $closed = 0;
        foreach ($this->of($people) as $user) {
            if (Hash::check((string) config('lucid.demo_password'), $user->password)) {
                $user->forceFill(['password' => Str::random(60)])->save();
                $user->tokens()->delete();
                $this->sessions->all($user);
                $closed++;
            }
        }
        if ($closed > 0) {
            $this->info("Closed {$closed} sign-ins of the demo.");
        }
    }

    /**
     * @return Collection<int, User>
     */
    private function of(DemoPeople $people): Collection
    {
        return User::query()
            ->whereIn('email', array_column($people->all(), 'email'))
            ->get();
    }
}
