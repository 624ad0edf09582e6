<?php

declare(strict_types=1);

namespace LucidStep\Core\People;

/**
 * On what ground pages stand: light, dark, or as the device says.
 */
enum ColorScheme: string
{
    case System = 'system';
    case Light = 'light';
    case Dark = 'dark';
}
