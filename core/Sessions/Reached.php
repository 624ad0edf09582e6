<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * How a page was reached.
 */
enum Reached: string
{
    /** Its address was typed, or it was opened from outside. */
    case Typed = 'typed';
    case Press = 'press';
    case Submit = 'submit';
    case Redirect = 'redirect';
    case Reload = 'reload';
    /** Back or forward. */
    case Back = 'back';
    /** In a tab of its own, which a press opened. */
    case PressedTab = 'pressed_tab';
    /** In a tab of its own, which somebody made by hand. */
    case HandMadeTab = 'hand_made_tab';

    /**
     * Whether somebody did something to come there that is not told already: a page that came of a press, or of sending, is no step.
     */
    public function isStep(): bool
    {
        return match ($this) {
            self::Press, self::Submit, self::Redirect, self::PressedTab => false,
            default => true,
        };
    }

    /**
     * Whether a way that is told begins with it.
     */
    public function begins(): bool
    {
        return self::Typed === $this || self::HandMadeTab === $this;
    }
}
