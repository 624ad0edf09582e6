<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Acts that are observed in the application under test: where from, and into which session.
 */
return new class extends Migration {
    public function up(): void
    {
        $this->logEnvironments(
            "'name', 'address', 'build_id', 'notes', 'observed'",
            'alter table environments add column observed boolean not null default false;',
        );
        DB::unprepared(
            <<<'SQL'
            -- The code that pairs a page with a session: encrypted to be shown, hashed to be found. What came of it last.
            alter table test_sessions add column observer_code text;
            alter table test_sessions add column observer_hash char(64) unique;
            alter table test_sessions add column observer jsonb not null default '{}';
            SQL
            ,
        );
    }

    public function down(): void
    {
        $this->logEnvironments("'name', 'address', 'build_id', 'notes'", 'alter table environments drop column observed;');
        DB::unprepared('alter table test_sessions drop column observer_code, drop column observer_hash, drop column observer;');
    }

    private function logEnvironments(string $columns, string $change): void
    {
        $of = str_replace("'", '', $columns);
        DB::unprepared(
            "drop trigger environments_logged on environments; {$change} create trigger environments_logged after insert or delete " .
                "or update of {$of} on environments for each row execute function lucid_log_setup({$columns});",
        );
    }
};
