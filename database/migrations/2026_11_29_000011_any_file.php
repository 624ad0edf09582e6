<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Any file may be evidence: the media types of office files are long.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::statement('alter table files alter column media_type type varchar(120)');
    }

    public function down(): void
    {
        DB::statement('alter table files alter column media_type type varchar(60)');
    }
};
