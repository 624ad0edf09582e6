<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/**
 * Columns and tables by the plain terms of the trade: see docs/decisions/2026-11-28-rooms-and-names.md.
 */
return new class extends Migration {
    private const COLUMNS = [
        'entries' => ['shows' => 'display_state', 'was' => 'previous_verdict', 'shown_at' => 'display_state_at'],
        'attempts' => ['beside' => 'parallel_reason', 'held_word' => 'override_reason'],
    ];

    public function up(): void
    {
        foreach (self::COLUMNS as $table => $columns) {
            Schema::table($table, static function (Blueprint $t) use ($columns): void {
                foreach ($columns as $from => $to) {
                    $t->renameColumn($from, $to);
                }
            });
        }
        Schema::rename('late_acts', 'late_commands');
    }

    public function down(): void
    {
        Schema::rename('late_commands', 'late_acts');
        foreach (self::COLUMNS as $table => $columns) {
            Schema::table($table, static function (Blueprint $t) use ($columns): void {
                foreach ($columns as $from => $to) {
                    $t->renameColumn($to, $from);
                }
            });
        }
    }
};
