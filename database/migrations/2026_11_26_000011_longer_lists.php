<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

return new class extends Migration {
    public function up(): void
    {
        // The lists of reasons are named after their verdicts.
        DB::statement('alter table list_items alter column list type varchar(32)');
    }

    public function down(): void
    {
        DB::statement("delete from list_items where list in ('reason_blocked', 'reason_not_applicable')");
        DB::statement('alter table list_items alter column list type varchar(12)');
    }
};
