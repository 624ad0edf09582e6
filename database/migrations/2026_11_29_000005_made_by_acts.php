<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * What an act on many cases made beside them, which goes with them when it is taken back.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            "alter table bulk_acts add column folders jsonb not null default '[]', add column suites jsonb not null default '[]'",
        );
    }

    public function down(): void
    {
        DB::statement('alter table bulk_acts drop column folders, drop column suites');
    }
};
