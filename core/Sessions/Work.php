<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * What the time of a session goes to.
 */
enum Work: string
{
    case Testing = 'testing';
    case Investigating = 'investigating';
    case SettingUp = 'setting_up';
}
