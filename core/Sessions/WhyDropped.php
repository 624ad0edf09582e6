<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * Why a line is left out of the way to a fault.
 */
enum WhyDropped: string
{
    case BeforeTheStart = 'before_the_start';
    case SilentCapture = 'silent_capture';
    case Replaced = 'replaced';
    case LeftByRedirect = 'left_by_redirect';
    case Detour = 'detour';

    public function words(): string
    {
        return match ($this) {
            self::BeforeTheStart => 'before the way begins',
            self::SilentCapture => 'a picture without words',
            self::Replaced => 'entered anew right after',
            self::LeftByRedirect => 'the page went on by itself',
            self::Detour => 'a way round that came back',
        };
    }
}
