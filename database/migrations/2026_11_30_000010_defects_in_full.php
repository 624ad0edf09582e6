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
            $table->string('priority', 8)->nullable();
            // Where it was when somebody asked back: there it goes once that is answered.
            $table->string('asked_in', 20)->nullable();
            $table->foreignUuid('duplicate_of_id')->nullable()->constrained('defects')->nullOnDelete();
            $table->index('duplicate_of_id');
            $table->index(['project_id', 'assignee_id']);
        });
        DB::statement("alter table defects add constraint defects_priority_check check (priority in ('now', 'soon', 'later'))");
        DB::statement('alter table defects add constraint defects_no_duplicate_of_itself check (duplicate_of_id <> id)');
        Schema::table('defect_changes', static function (Blueprint $table): void {
            // What else than the state is otherwise: [before, after] by field; of long texts that they are.
            $table->jsonb('fields')->nullable();
        });
        Schema::create('defect_comments', static function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('defect_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('author_id')->constrained('users');
            $table->text('text');
            $table->timestampTz('created_at', 6);
            $table->timestampTz('edited_at', 6)->nullable();
            $table->foreignUuid('removed_by_id')->nullable()->constrained('users')->nullOnDelete();
            $table->timestampTz('removed_at', 6)->nullable();
            $table->text('removed_reason')->default('');
            $table->index(['defect_id', 'created_at']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('defect_comments');
        Schema::table('defect_changes', static fn(Blueprint $table) => $table->dropColumn('fields'));
        Schema::table('defects', static fn(Blueprint $table) => $table->dropColumn(['priority', 'asked_in', 'duplicate_of_id']));
    }
};
