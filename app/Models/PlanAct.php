<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Support\Carbon;

/**
 * An act of planning that can be undone as one.
 *
 * @property string               $project_id
 * @property ?string              $cycle_id
 * @property string               $actor_id
 * @property string               $title
 * @property array<string, mixed> $before
 * @property array<string, mixed> $after
 * @property Carbon               $created_at
 * @property ?Carbon              $undone_at
 */
final class PlanAct extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['before' => 'array', 'after' => 'array', 'created_at' => 'datetime', 'undone_at' => 'datetime'];

    /**
     * What is written when it is taken back.
     */
    public function undoTitle(): string
    {
        return 'Undone: ' . mb_strtolower(mb_substr($this->title, 0, 1)) . mb_substr($this->title, 1);
    }
}
