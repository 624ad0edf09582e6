<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

return new class extends Migration {
    public function up(): void
    {
        // What lists are filtered by most, so that they are counted in the index alone.
        DB::unprepared(
            <<<'SQL'
            create index defects_filtered on defects (project_id, assignee_id, state, severity, number, id);
            drop index defects_project_id_assignee_id_index;
            SQL
            ,
        );
    }

    public function down(): void
    {
        DB::unprepared(
            <<<'SQL'
            create index defects_project_id_assignee_id_index on defects (project_id, assignee_id);
            drop index defects_filtered;
            SQL
            ,
        );
    }
};
