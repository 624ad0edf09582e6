<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Words beside the record are taken out with a trace too: of questions, of hand-overs and looks.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::unprepared(
            <<<'SQL'
            alter table removals alter column attempt_id drop not null;
            alter table removals drop constraint removals_kind_check;
            alter table removals add constraint removals_kind_check check (kind in ('file', 'text', 'message', 'entry'));
            alter table removals add constraint removals_of check ((kind in ('file', 'text')) = (attempt_id is not null));
            alter table case_messages add column removed_by_id uuid references users (id), add column removed_reason text;
            SQL
            ,
        );
    }

    public function down(): void
    {
        DB::unprepared(
            <<<'SQL'
            alter table case_messages drop column removed_by_id, drop column removed_reason;
            delete from removals where attempt_id is null;
            alter table removals drop constraint removals_of;
            alter table removals alter column attempt_id set not null;
            SQL
            ,
        );
    }
};
