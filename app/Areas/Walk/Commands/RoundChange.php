<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

/**
 * What is done with a round.
 */
enum RoundChange: string
{
    case Skip = 'skip';
    case TakeUp = 'take_up';
    case Repeat = 'repeat';

    /**
     * The kind of the event.
     */
    public function event(): string
    {
        return match ($this) {
            self::Skip => 'round_skipped',
            self::TakeUp => 'round_taken_up',
            self::Repeat => 'round_repeated',
        };
    }
}
