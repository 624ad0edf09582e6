<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Tracker;

/**
 * The tracker wants a call not as it is: trying again changes nothing.
 */
final class TrackerRefused extends \RuntimeException
{
    public function __construct(public readonly int $status, string $message)
    {
        parent::__construct($message);
    }

    public static function answered(OutsideAnswer $answer): self
    {
        $what = match (true) {
            \in_array($answer->status, [401, 403], true)
                => 'It does not take the token any more. An admin gives it a new one in Setup; then send this again.',
            404 === $answer->status => 'There is nothing at this address. An admin looks at the addresses in Setup.',
            $answer->status >= 300 && $answer->status < 400
                => 'It wants to lead elsewhere; that is not followed. An admin looks at the address in Setup.',
            413 === $answer->status => 'It is too large for the tracker. Leave it out, or make it smaller.',
            default => 'It refuses this: mend it, and send it again.',
        };
        $said = $answer->excerpt(160);

        return new self($answer->status, "{$answer->status}: {$what}" . ('' === $said ? '' : " It said: {$said}"));
    }
}
