<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

/**
 * What an address that works once is for.
 */
enum LinkPurpose: string
{
    /** Makes whoever uses it an owner of the installation. */
    case Owner = 'owner';

    /** Sets another password. */
    case Password = 'password';
}
