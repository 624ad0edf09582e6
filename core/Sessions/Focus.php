<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * Whether time goes to the charter, or to what came up beside it.
 */
enum Focus: string
{
    case Charter = 'charter';
    case Opportunity = 'opportunity';
}
