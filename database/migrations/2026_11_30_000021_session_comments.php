<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('session_comments', static function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('session_id')->constrained('test_sessions')->cascadeOnDelete();
            $table->foreignUuid('author_id')->constrained('users');
            $table->text('text');
            // Who is asked to read it; null: nobody in particular.
            $table->foreignUuid('to_id')->nullable()->constrained('users');
            $table->foreignUuid('removed_by_id')->nullable()->constrained('users');
            $table->timestampTz('removed_at', 6)->nullable();
            $table->text('removed_reason')->default('');
            $table->timestampTz('created_at', 6);
            $table->index('session_id');
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('session_comments');
    }
};
