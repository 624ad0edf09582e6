<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('tracker_connections', static function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->unique()->constrained()->cascadeOnDelete();
            $table->string('address', 500);
            // Encrypted, and never shown again.
            $table->text('token')->default('');
            $table->text('secret');
            $table->jsonb('mapping')->default('{}');
            $table->boolean('enabled')->default(true);
            // Every defect goes there by itself, or just those that somebody sends.
            $table->boolean('sends_each')->default(true);
            $table->integer('failures')->default(0);
            $table->timestampTz('resting_until', 6)->nullable();
            $table->text('cursor')->default('');
            $table->timestampTz('polled_at', 6)->nullable();
            $table->text('problem')->default('');
            $table->timestampsTz(6);
        });
        Schema::create('tracker_calls', static function (Blueprint $table): void {
            // The tracker knows an act by it: the same again changes nothing there.
            $table->uuid('id')->primary();
            $table->bigInteger('number')->generatedAs();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('defect_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('by_id')->constrained('users');
            $table->string('act', 10);
            $table->jsonb('payload')->default('{}');
            $table->string('state', 10)->default('waiting');
            $table->integer('tries')->default(0);
            $table->timestampTz('next_at', 6);
            $table->text('problem')->default('');
            $table->timestampTz('created_at', 6);
            $table->timestampTz('done_at', 6)->nullable();
            $table->index(['defect_id', 'number']);
        });
        Schema::create('tracker_events', static function (Blueprint $table): void {
            $table->foreignUuid('connection_id')->constrained('tracker_connections')->cascadeOnDelete();
            $table->string('event', 100);
            $table->timestampTz('at', 6);
            $table->primary(['connection_id', 'event']);
        });
        Schema::table('defects', static function (Blueprint $table): void {
            $table->string('outside_key', 100)->nullable();
            $table->text('outside_url')->default('');
            $table->string('outside_state', 100)->default('');
            $table->string('outside_assignee', 200)->default('');
            // When it changed there, as the tracker tells it.
            $table->string('outside_changed', 40)->default('');
            $table->timestampTz('outside_seen_at', 6)->nullable();
        });
        Schema::table('defect_changes', static function (Blueprint $table): void {
            $table->boolean('outside')->default(false);
        });
        DB::unprepared(
            <<<'SQL'
            alter table tracker_calls add constraint tracker_calls_act check (act in ('file', 'comment', 'attach', 'move'));
            alter table tracker_calls add constraint tracker_calls_state check (state in ('waiting', 'sent', 'refused', 'left_out'));
            create index tracker_calls_open on tracker_calls (project_id, defect_id, number) where state in ('waiting', 'refused');
            create unique index defects_outside on defects (project_id, outside_key) where outside_key is not null;
            create trigger tracker_connections_logged after insert or delete or update of address, enabled, sends_each
                on tracker_connections for each row execute function lucid_log_setup('address', 'enabled', 'sends_each');
            SQL
            ,
        );
    }

    public function down(): void
    {
        Schema::table(
            'defects',
            static fn(Blueprint $table) => $table->dropColumn([
                'outside_key',
                'outside_url',
                'outside_state',
                'outside_assignee',
                'outside_changed',
                'outside_seen_at',
            ]),
        );
        Schema::table('defect_changes', static fn(Blueprint $table) => $table->dropColumn('outside'));
        Schema::dropIfExists('tracker_events');
        Schema::dropIfExists('tracker_calls');
        Schema::dropIfExists('tracker_connections');
    }
};
