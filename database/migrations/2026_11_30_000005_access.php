<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * What a project says of who may what, told in the log of its setup.
 */
return new class extends Migration {
    private const LOGGED = [
        'name',
        'policies',
        'working_days',
        'holidays',
        'time_zone',
        'retention_days',
        'storage_limit_mb',
        'archived_at',
    ];

    public function up(): void
    {
        Schema::table('projects', static fn(Blueprint $table) => $table->jsonb('access')->default('{}'));
        self::log([...self::LOGGED, 'access']);
    }

    public function down(): void
    {
        self::log(self::LOGGED);
        Schema::table('projects', static fn(Blueprint $table) => $table->dropColumn('access'));
    }

    /**
     * @param  list<string>  $columns
     */
    private static function log(array $columns): void
    {
        $of = implode(', ', $columns);
        $names = implode(', ', array_map(static fn(string $c): string => "'{$c}'", $columns));
        DB::statement(
            "create or replace trigger projects_logged after insert or delete or update of {$of} on projects " .
                "for each row execute function lucid_log_setup({$names})",
        );
    }
};
