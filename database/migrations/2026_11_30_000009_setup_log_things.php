<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

return new class extends Migration {
    public function up(): void
    {
        // How a thing of the setup is now, by its newest line: asked for each act that may be undone.
        DB::statement('create index setup_log_thing on setup_log (project_id, subject, key, id desc)');
    }

    public function down(): void
    {
        DB::statement('drop index setup_log_thing');
    }
};
