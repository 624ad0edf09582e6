<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * The applications under test that the handset of a project may show.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::statement("alter table projects add column handset_addresses jsonb not null default '[]'");
    }

    public function down(): void
    {
        DB::statement('alter table projects drop column handset_addresses');
    }
};
