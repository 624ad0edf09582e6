<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Support\Carbon;
use LucidStep\Core\Defects\Tracker\TrackerMapping;

/**
 * The tracker outside that a project files its defects into.
 *
 * @property string               $project_id
 * @property string               $address
 * @property string               $token  encrypted where it is kept
 * @property string               $secret with which the tracker signs what it tells
 * @property array<string, mixed> $mapping
 * @property bool                 $enabled
 * @property bool                 $sends_each every defect goes there by itself
 * @property int                  $failures   in a row
 * @property ?Carbon              $resting_until
 * @property string               $cursor     up to where its changes are known
 * @property ?Carbon              $polled_at
 * @property string               $problem    what is wrong with the connection; empty: nothing
 */
final class TrackerConnection extends Record
{
    /** @var array<string, string> */
    protected $casts = [
        'token' => 'encrypted',
        'secret' => 'encrypted',
        'mapping' => 'array',
        'enabled' => 'boolean',
        'sends_each' => 'boolean',
        'resting_until' => 'datetime',
        'polled_at' => 'datetime',
    ];

    public function map(): TrackerMapping
    {
        return TrackerMapping::fromArray($this->mapping);
    }
}
