<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('folders', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->uuid('parent_id')->nullable();
            $table->text('name');
            $table->integer('position');
            $table->index(['project_id', 'parent_id', 'position']);
        });

        Schema::table('folders', static fn(Blueprint $table) => $table->foreign('parent_id')->references('id')->on('folders'));

        Schema::create('cases', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('folder_id')->nullable()->constrained();
            $table->integer('number');
            $table->string('key', 24)->unique();
            $table->text('title');
            $table->string('state', 16)->default('draft');
            $table->string('type', 40)->default('functional');
            $table->string('priority', 10)->default('medium');
            $table->boolean('automated')->default(false);
            $table->integer('estimate_seconds')->nullable();
            $table->foreignUuid('owner_id')->nullable()->constrained('users');
            $table->jsonb('labels')->default('[]');
            $table->uuid('version_id')->nullable();
            $table->integer('position');
            $table->timestampTz('binned_at', 6)->nullable();
            $table->timestampsTz(6);
            $table->unique(['project_id', 'number']);
            $table->index(['project_id', 'folder_id', 'position', 'id']);
        });
        DB::statement("alter table cases add constraint cases_state_check check (state in ('draft', 'in_review', 'approved', 'retired'))");
        DB::statement("alter table cases add constraint cases_priority_check check (priority in ('critical', 'high', 'medium', 'low'))");
        DB::statement('create index cases_title_trgm on cases using gin (title gin_trgm_ops)');

        Schema::create('case_versions', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('case_id')->constrained('cases')->cascadeOnDelete();
            $table->integer('number');
            $table->text('title');
            $table->text('objective')->default('');
            $table->text('preconditions')->default('');
            $table->text('postconditions')->default('');
            $table->foreignUuid('author_id')->nullable()->constrained('users');
            $table->timestampTz('created_at', 6);
            $table->unique(['case_id', 'number']);
        });
        DB::statement(
            'alter table cases add constraint cases_version_id_foreign foreign key (version_id) references ' .
                'case_versions(id) deferrable initially deferred',
        );

        Schema::create('steps', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('case_version_id')->constrained('case_versions')->cascadeOnDelete();
            $table->integer('position');
            $table->text('action');
            $table->text('data')->default('');
            $table->text('expected')->default('');
            $table->unique(['case_version_id', 'position']);
        });
    }
};
