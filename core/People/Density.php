<?php

declare(strict_types=1);

namespace LucidStep\Core\People;

/**
 * How much stands on a page at once.
 */
enum Density: string
{
    case Roomy = 'roomy';
    case Dense = 'dense';
}
