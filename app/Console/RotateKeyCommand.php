<?php

declare(strict_types=1);

namespace LucidStep\App\Console;

use Illuminate\Console\Command;
use LucidStep\App\Support\Record\RecordSigner;

/**
 * Gives the installation a new key to sign records with.
 */
final class RotateKeyCommand extends Command
{
    protected $signature = 'lucid:rotate-key';

    protected $description = 'Sign records with a new key from now on; what the old one signed can still be checked';

    public function handle(RecordSigner $signer): int
    {
        $this->line("Until now: {$signer->fingerprint()}");
        $this->line("From now on: {$signer->rotate()}");

        return self::SUCCESS;
    }
}
