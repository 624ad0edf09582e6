<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Facts that were read out of words until now: what a line of a cycle's log tells of, and who named a configuration.
 */
return new class extends Migration {
    private const KINDS = [
        'Asked for a review' => 'review_requested',
        'Returned the cycle to draft' => 'returned',
        'Took the cycle back to draft' => 'withdrawn',
        'Released the cycle' => 'released',
        'Reopened the cycle' => 'reopened',
        'Closed the cycle' => 'closed',
        'The cycle closed itself: everything in it is decided' => 'closed',
        'Abandoned the cycle' => 'abandoned',
        'Made the cycle' => 'made',
    ];

    public function up(): void
    {
        Schema::table('cycle_log', static function (Blueprint $table): void {
            $table->string('kind', 24)->default('changed');
        });
        foreach (self::KINDS as $text => $kind) {
            DB::table('cycle_log')
                ->where('text', $text)
                ->update(['kind' => $kind]);
        }
        Schema::table('configurations', static function (Blueprint $table): void {
            $table->boolean('named_by_values')->default(false);
        });
        DB::update(
            <<<'SQL'
            update configurations c set named_by_values = true
            from (
                select v.configuration_id, string_agg(a.name, ', ' order by x.position) as name
                from configuration_values v join axis_values a on a.id = v.value_id join axes x on x.id = a.axis_id
                group by v.configuration_id
            ) n
            where n.configuration_id = c.id and n.name = c.name
            SQL
            ,
        );
    }

    public function down(): void
    {
        Schema::table('cycle_log', static fn(Blueprint $table) => $table->dropColumn('kind'));
        Schema::table('configurations', static fn(Blueprint $table) => $table->dropColumn('named_by_values'));
    }
};
