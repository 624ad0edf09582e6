<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Who walks now is asked by every board: few entries of a cycle are open at a time.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::statement('create index entries_open on entries (cycle_id) where open_attempt_id is not null');
    }

    public function down(): void
    {
        DB::statement('drop index entries_open');
    }
};
