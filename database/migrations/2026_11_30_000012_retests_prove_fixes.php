<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::table('defects', static function (Blueprint $table): void {
            // When the build with the fix was named: what was walked before proves nothing.
            $table->timestampTz('fixed_at', 6)->nullable();
            // Its age counts open time only: up to when it was last closed, and since when it is open again.
            $table->bigInteger('open_ms')->default(0);
            $table->timestampTz('open_since', 6)->nullable();
        });
        Schema::table('defect_changes', static function (Blueprint $table): void {
            // The walk whose result moved it.
            $table->foreignUuid('attempt_id')->nullable()->constrained()->nullOnDelete();
        });
        DB::unprepared(
            <<<'SQL'
            create unique index defect_changes_reopened_once on defect_changes (defect_id, attempt_id)
                where attempt_id is not null and to_state = 'reopened';
            update defects d set fixed_at = (select max(c.created_at) from defect_changes c
                where c.defect_id = d.id and c.to_state = 'fixed' and c.from_state is distinct from 'needs_information')
                where fixed_build_id is not null;
            with spans as (
                select defect_id, to_state, created_at, lead(created_at) over (partition by defect_id order by created_at, id) as until
                from defect_changes
            ), sums as (
                select defect_id,
                    coalesce(sum(extract(epoch from until - created_at) * 1000) filter (where until is not null), 0)::bigint as ms,
                    max(created_at) filter (where until is null) as since
                from spans where to_state not in ('verified', 'closed', 'rejected', 'duplicate') group by defect_id
            )
            update defects d set open_ms = s.ms, open_since = s.since from sums s where s.defect_id = d.id;
            SQL
            ,
        );
    }

    public function down(): void
    {
        Schema::table('defect_changes', static fn(Blueprint $table) => $table->dropColumn('attempt_id'));
        Schema::table('defects', static fn(Blueprint $table) => $table->dropColumn(['fixed_at', 'open_ms', 'open_since']));
    }
};
