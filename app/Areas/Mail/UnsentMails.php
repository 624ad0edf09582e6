<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Mail;

use Illuminate\Mail\Events\MessageSending;
use Symfony\Component\Mime\Address;

/**
 * Keeps mails to the people of the demo from leaving: their addresses are made up. In the demo itself they are caught and shown.
 */
final class UnsentMails
{
    private const MADE_UP = '@skerrywick.test';

    /**
     * @return ?bool false: it is not sent
     */
    public function handle(MessageSending $sending): ?bool
    {
        $to = array_map(static fn(Address $a): string => $a->getAddress(), $sending->message->getTo());
        $madeUp = [] !== $to && [] === array_filter($to, static fn(string $a): bool => !str_ends_with($a, self::MADE_UP));

        return $madeUp && 'catcher' !== config('mail.default') ? false : null;
    }
}
