<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        DB::statement('create extension if not exists pg_trgm');

        Schema::create('users', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->text('name');
            $table->text('email')->unique();
            $table->text('password');
            $table->rememberToken();
            $table->jsonb('preferences')->default('{}');
            $table->timestampsTz(6);
        });

        Schema::create('personal_access_tokens', function (Blueprint $table): void {
            $table->id();
            $table->uuidMorphs('tokenable');
            $table->text('name');
            $table->string('token', 64)->unique();
            $table->text('abilities')->nullable();
            $table->timestampTz('last_used_at')->nullable();
            $table->timestampTz('expires_at')->nullable()->index();
            $table->timestampsTz();
        });

        Schema::create('projects', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->string('code', 10)->unique();
            $table->text('name');
            $table->text('time_zone')->default('UTC');
            $table->jsonb('policies')->default('{}');
            $table->timestampsTz(6);
        });
        DB::statement("alter table projects add constraint projects_code_check check (code ~ '^[A-Z][A-Z0-9]{1,9}$')");

        Schema::create('memberships', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('user_id')->constrained()->cascadeOnDelete();
            $table->string('role', 16);
            $table->unique(['project_id', 'user_id']);
            $table->index('user_id');
        });
        DB::statement(
            "alter table memberships add constraint memberships_role_check check (role in ('admin', 'lead', " .
                "'tester', 'developer', 'reader'))",
        );

        Schema::create('counters', function (Blueprint $table): void {
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->string('kind', 16);
            $table->integer('last')->default(0);
            $table->primary(['project_id', 'kind']);
        });

        Schema::create('jobs', function (Blueprint $table): void {
            $table->bigIncrements('id');
            $table->string('queue')->index();
            $table->longText('payload');
            $table->unsignedTinyInteger('attempts');
            $table->unsignedInteger('reserved_at')->nullable();
            $table->unsignedInteger('available_at');
            $table->unsignedInteger('created_at');
        });

        Schema::create('failed_jobs', function (Blueprint $table): void {
            $table->id();
            $table->string('uuid')->unique();
            $table->text('connection');
            $table->text('queue');
            $table->longText('payload');
            $table->longText('exception');
            $table->timestampTz('failed_at')->useCurrent();
        });

        Schema::create('idempotency_keys', function (Blueprint $table): void {
            $table->uuid('key')->primary();
            $table->foreignUuid('user_id')->constrained()->cascadeOnDelete();
            $table->string('fingerprint', 64);
            $table->smallInteger('status');
            $table->text('body')->nullable();
            $table->timestampTz('created_at', 6)->index();
        });

        // What changed in a project, for screens that keep themselves current. Rows are ordered by the
        // transaction that wrote them, so that a slow one is never skipped by a reader.
        DB::statement(
            <<<'SQL'
            create table changes (
                xid xid8 not null default pg_current_xact_id(),
                id bigint generated always as identity,
                project_id uuid not null references projects(id) on delete cascade,
                topic varchar(24) not null,
                subject_id uuid not null,
                cycle_id uuid,
                at timestamptz(6) not null default clock_timestamp(),
                primary key (project_id, xid, id)
            )
            SQL
            ,
        );
        DB::statement('create index changes_at_index on changes (at)');
    }
};
