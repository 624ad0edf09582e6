<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/**
 * Which projects are the demo, so that it can be taken out again whatever else there is.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('projects', static fn(Blueprint $table) => $table->boolean('is_demo')->default(false));
    }

    public function down(): void
    {
        Schema::table('projects', static fn(Blueprint $table) => $table->dropColumn('is_demo'));
    }
};
