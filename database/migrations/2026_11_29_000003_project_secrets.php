<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * The values of secret columns that a project has or had, encrypted as one: what people write is looked through for them.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            'create table project_secrets (project_id uuid primary key references projects on delete cascade, ' .
                'hidden text not null, updated_at timestamptz not null default now())',
        );
    }

    public function down(): void
    {
        DB::statement('drop table project_secrets');
    }
};
