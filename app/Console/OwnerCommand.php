<?php

declare(strict_types=1);

namespace LucidStep\App\Console;

use Illuminate\Console\Command;
use Illuminate\Support\Str;
use LucidStep\App\Areas\People\Actions\OneTimeLinks;
use LucidStep\App\Models\LinkPurpose;
use LucidStep\App\Models\User;

/**
 * Prints an address by which somebody becomes an owner of the installation: the first one, or one who lost everything.
 */
final class OwnerCommand extends Command
{
    protected $signature = 'lucid:owner {email? : of somebody who has an account} {--if-none : only while there is no owner}';

    protected $description = 'Print an address, good for an hour, by which an owner signs in and sets a password';

    public function handle(): int
    {
        $typed = $this->argument('email');
        $email = \is_string($typed) ? Str::lower(trim($typed)) : '';
        $owners = User::query()->where('is_owner', true)->pluck('email')->all();
        if ($this->option('if-none') && [] !== $owners) {
            return self::SUCCESS;
        }
        $user = '' === $email ? null : User::query()->where('email', $email)->first();
        if ('' !== $email && null === $user) {
            $this->error("Nobody has the address {$email}. Nothing was changed.");

            return self::FAILURE;
        }
        if (null === $user && [] !== $owners) {
            $this->error('There is an owner already: ' . implode(', ', $owners) . '. Say whose address is wanted: ./lucid owner <mail>');

            return self::FAILURE;
        }
        $address = OneTimeLinks::make(LinkPurpose::Owner, $user);
        $minutes = OneTimeLinks::MINUTES;
        $this->line(
            null === $user
                ? "The first owner is made here, within {$minutes} minutes:"
                : "{$user->name} becomes owner here, within {$minutes} minutes:",
        );
        $this->line("  {$address}");

        return self::SUCCESS;
    }
}
