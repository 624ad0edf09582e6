<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('defect_files', static function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('defect_id')->constrained()->cascadeOnDelete();
            // The comment that it goes with, which is written after it; null: it stands with the defect itself.
            $table->uuid('comment_id')->nullable()->index();
            // Null once it was taken out.
            $table->char('sha256', 64)->nullable();
            $table->foreign('sha256')->references('sha256')->on('files');
            $table->text('name');
            $table->foreignUuid('added_by_id')->constrained('users');
            $table->timestampTz('created_at', 6);
            $table->foreignUuid('removed_by_id')->nullable()->constrained('users');
            $table->timestampTz('removed_at', 6)->nullable();
            $table->text('removed_reason')->default('');
            $table->index(['defect_id', 'created_at']);
            $table->index('sha256');
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('defect_files');
    }
};
