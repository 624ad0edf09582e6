<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/**
 * A second factor at sign-in: its secret, encrypted, the code that was taken last, and hashes of recovery codes.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('users', static function (Blueprint $table): void {
            $table->text('totp_secret')->nullable();
            $table->timestampTz('totp_confirmed_at', 6)->nullable();
            $table->bigInteger('totp_step')->default(0);
            $table->jsonb('recovery_codes')->default('[]');
        });
    }

    public function down(): void
    {
        Schema::table(
            'users',
            static fn(Blueprint $table) => $table->dropColumn(['totp_secret', 'totp_confirmed_at', 'totp_step', 'recovery_codes']),
        );
    }
};
