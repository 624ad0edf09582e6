<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * What a line of a session's timeline is: what a person wrote or captured, or what was observed of the application under test.
 */
enum LineKind: string
{
    case Note = 'note';
    case Question = 'question';
    case Idea = 'idea';
    case Risk = 'risk';
    case Issue = 'issue';
    case Capture = 'capture';
    case Visit = 'visit';
    case Press = 'press';
    case Type = 'type';
    case Choose = 'choose';
    case Tick = 'tick';
    case Submit = 'submit';
    case Trouble = 'trouble';

    public function isObserved(): bool
    {
        return match ($this) {
            self::Note, self::Question, self::Idea, self::Risk, self::Issue, self::Capture => false,
            default => true,
        };
    }

    /**
     * Whether something was entered with it that a form still has to send.
     */
    public function enters(): bool
    {
        return self::Type === $this || self::Choose === $this || self::Tick === $this;
    }
}
