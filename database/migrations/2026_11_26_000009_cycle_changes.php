<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // What of a cycle was changed, from what to what: its testers are told on Today.
        Schema::table('cycle_log', function (Blueprint $table): void {
            $table->jsonb('changes')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('cycle_log', function (Blueprint $table): void {
            $table->dropColumn('changes');
        });
    }
};
