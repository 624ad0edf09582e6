<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Concerns\HasUuids;
use Illuminate\Database\Eloquent\Model;

/**
 * A row with a UUIDv7 key and times to the microsecond. What may be filled is decided by the actions.
 *
 * @property string $id
 */
abstract class Record extends Model
{
    use HasUuids;

    protected $guarded = [];

    protected $dateFormat = 'Y-m-d H:i:s.uP';
}
