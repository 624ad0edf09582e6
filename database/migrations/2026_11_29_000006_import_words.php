<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * What words of files mean in a project, as somebody said: "hoch" is the priority high.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::statement(
            'create table import_words (project_id uuid not null references projects on delete cascade, field text not null, ' .
                'word text not null, value text not null, primary key (project_id, field, word))',
        );
    }

    public function down(): void
    {
        DB::statement('drop table import_words');
    }
};
