<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * What a notice is about, so that those of one kind on one thing stand together. Older ones stand alone.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::statement("alter table notices add column kind text not null default ''");
    }

    public function down(): void
    {
        DB::statement('alter table notices drop column kind');
    }
};
