<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

/**
 * An entry's condition on another of its cycle.
 *
 * @property string $entry_id
 * @property string $needs_id
 * @property string $kind
 */
final class EntryCondition extends Record
{
    public $timestamps = false;
}
