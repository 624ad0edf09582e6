<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('repros', static function (Blueprint $table): void {
            // The line of a session that shows the fault.
            $table->foreignUuid('line_id')->primary()->constrained('session_lines')->cascadeOnDelete();
            $table->foreignUuid('project_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('session_id')->constrained('test_sessions')->cascadeOnDelete();
            // What leads there, in order: each the words of a step, and the line it comes from.
            $table->jsonb('steps')->default('[]');
            // How often it was walked again, and how often the fault showed.
            $table->integer('tries')->default(0);
            $table->integer('shown')->default(0);
            $table->foreignUuid('defect_id')->nullable()->constrained()->nullOnDelete();
            $table->foreignUuid('case_id')->nullable()->constrained()->nullOnDelete();
            $table->foreignUuid('saved_by_id')->constrained('users');
            $table->integer('version')->default(1);
            $table->timestampsTz(6);
            $table->index('session_id');
            $table->index('defect_id');
            $table->index('case_id');
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('repros');
    }
};
