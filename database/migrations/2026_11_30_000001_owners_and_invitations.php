<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Owners of the installation, archived projects, invitations, and addresses that work once.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('users', static fn(Blueprint $table) => $table->boolean('is_owner')->default(false));
        Schema::table('projects', static function (Blueprint $table): void {
            $table->timestampTz('archived_at', 6)->nullable();
        });
        Schema::create('invitations', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->text('email');
            $table->text('name')->default('');
            $table->string('role', 16);
            $table->foreignUuid('inviter_id')->constrained('users');
            $table->foreignUuid('accepted_by_id')->nullable()->constrained('users');
            $table->timestampTz('created_at', 6);
            $table->timestampTz('sent_at', 6)->nullable();
            $table->text('failure')->nullable();
            $table->timestampTz('expires_at', 6);
            $table->timestampTz('accepted_at', 6)->nullable();
            $table->timestampTz('withdrawn_at', 6)->nullable();
        });
        // One open invitation for each address, whoever asks at the same moment.
        DB::statement(
            'create unique index invitations_open on invitations (project_id, email) where accepted_at is null and withdrawn_at is null',
        );
        DB::statement(
            "alter table invitations add constraint invitations_role_check check (role in ('admin', 'lead', " .
                "'tester', 'developer', 'reader'))",
        );
        Schema::create('one_time_links', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->string('purpose', 16);
            $table->foreignUuid('user_id')->nullable()->constrained()->cascadeOnDelete();
            $table->string('token_hash', 64)->unique();
            $table->timestampTz('created_at', 6);
            $table->timestampTz('expires_at', 6);
            $table->timestampTz('used_at', 6)->nullable();
        });
        DB::statement("alter table one_time_links add constraint one_time_links_purpose_check check (purpose in ('owner', 'password'))");
        // Who was invited, sent away and taken back stands in the log of the setup, as all that sets a project up does.
        $columns = ['email', 'role', 'accepted_at', 'withdrawn_at'];
        $names = implode(', ', array_map(static fn(string $c): string => "'{$c}'", $columns));
        $of = implode(', ', $columns);
        DB::statement(
            "create trigger invitations_logged after insert or delete or update of {$of} on invitations " .
                "for each row execute function lucid_log_setup({$names})",
        );
        DB::statement(
            'create or replace trigger projects_logged after insert or delete or update of name, policies, working_days, holidays, ' .
                'time_zone, retention_days, storage_limit_mb, archived_at on projects for each row execute function ' .
                "lucid_log_setup('name', 'policies', 'working_days', 'holidays', 'time_zone', 'retention_days', 'storage_limit_mb', " .
                "'archived_at')",
        );
    }

    public function down(): void
    {
        DB::statement(
            'create or replace trigger projects_logged after insert or delete or update of name, policies, working_days, holidays, ' .
                'time_zone, retention_days, storage_limit_mb on projects for each row execute function ' .
                "lucid_log_setup('name', 'policies', 'working_days', 'holidays', 'time_zone', 'retention_days', 'storage_limit_mb')",
        );
        Schema::dropIfExists('one_time_links');
        Schema::dropIfExists('invitations');
        Schema::table('projects', static fn(Blueprint $table) => $table->dropColumn('archived_at'));
        Schema::table('users', static fn(Blueprint $table) => $table->dropColumn('is_owner'));
    }
};
