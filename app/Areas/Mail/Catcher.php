<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Mail;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Mailer\SentMessage;
use Symfony\Component\Mailer\Transport\AbstractTransport;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;

/**
 * A stand-in for a mail server: keeps mails where a page shows them, and sends nothing.
 */
final class Catcher extends AbstractTransport
{
    public function __toString(): string
    {
        return 'catcher://database';
    }

    protected function doSend(SentMessage $message): void
    {
        $mail = $message->getOriginalMessage();
        if ($mail instanceof Email) {
            DB::table('caught_mails')->insert([
                'to' => implode(', ', array_map(static fn(Address $a): string => $a->getAddress(), $mail->getTo())),
                'subject' => (string) $mail->getSubject(),
                'text' => (string) $mail->getTextBody(),
                'at' => Carbon::now(),
            ]);
        }
    }
}
