<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // What came late for the evidence of a sealed attempt is done with a copy of it.
        Schema::table('evidence', function (Blueprint $table): void {
            $table->foreignUuid('copy_of_id')->nullable()->constrained('evidence');
        });
        DB::statement('create index evidence_copies on evidence (copy_of_id) where copy_of_id is not null');
    }

    public function down(): void
    {
        Schema::table('evidence', function (Blueprint $table): void {
            $table->dropColumn('copy_of_id');
        });
    }
};
