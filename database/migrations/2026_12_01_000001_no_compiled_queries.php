<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Each question here is asked once and answered in less time than compiling it takes, and sorts of a project's size fit into memory.
 */
return new class extends Migration {
    public function up(): void
    {
        $this->set('set jit = off', "set work_mem = '16MB'");
    }

    public function down(): void
    {
        $this->set('reset jit', 'reset work_mem');
    }

    /**
     * For all sessions to come. Who may not say so of the database (it belongs to somebody else) goes on without.
     */
    private function set(string ...$how): void
    {
        foreach ($how as $one) {
            DB::unprepared(
                <<<SQL
                do \$do\$ begin
                    execute format('alter database %I ', current_database()) || \$say\${$one}\$say\$;
                exception when insufficient_privilege then
                    raise notice 'The settings of the database stay as they are.';
                end \$do\$
                SQL
                ,
            );
        }
    }
};
