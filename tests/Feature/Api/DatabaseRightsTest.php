<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Api;

use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Support\Database\DatabaseRights;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * The database itself keeps what was recorded from the application: its role may add and read, and nothing more. All other
 * feature tests run as this role, so that what it must be able to do is tested by them.
 */
final class DatabaseRightsTest extends FeatureTestCase
{
    public function test_what_was_recorded_is_only_added_to(): void
    {
        foreach (DatabaseRights::APPEND_ONLY as $table => $columns) {
            $some = DB::getSchemaBuilder()->getColumnListing($table);
            foreach (array_diff($some, $columns) as $column) {
                $this->refused("update {$table} set {$column} = {$column}");
            }
            foreach ($columns as $column) {
                DB::update("update {$table} set {$column} = {$column} where false");
            }
            $this->refused("delete from {$table}");
            $this->refused("truncate {$table}");
            $this->refused("alter table {$table} disable trigger all", 'must be owner');
            $this->refused("drop table {$table}", 'must be owner');
            $this->refused("create trigger t before insert on {$table} for each row execute function lucid_append_only()");
            $this->refused("create rule r as on insert to {$table} do instead nothing", 'must be owner');
        }
        $this->refused('create or replace function lucid_append_only() returns trigger language plpgsql as $$ begin return new; end $$');
        $this->refused('create table public.events_2 (id int)');
        $this->refused('delete from migrations');
    }

    public function test_no_table_is_forgotten_and_none_may_be_emptied_or_changed_in_its_form(): void
    {
        self::assertSame([], DatabaseRights::problems(DB::connection()));
        self::assertSame(0, Artisan::call('lucid:check-database'));
        $this->refused('truncate users cascade');
        $this->refused('alter table attempts disable trigger all', 'must be owner');
    }

    public function test_a_role_that_may_more_is_named(): void
    {
        self::becomeOwner();
        self::assertStringContainsString('owns the table', DatabaseRights::problems(DB::connection())[0]);
        self::assertSame(1, Artisan::call('lucid:check-database'));
        self::assertStringContainsString('create role lucid_app', Artisan::output());
        DB::statement('grant update on cycle_log to public');
        DB::statement('revoke insert on removals from ' . config('database.connections.pgsql.username'));
        DB::statement('reset role');
        $role = config('database.connections.pgsql.username');
        self::assertSame(["{$role} may update cycle_log.", "{$role} may not insert removals."], DatabaseRights::problems(DB::connection()));
    }

    private function refused(string $sql, string $why = 'permission denied'): void
    {
        try {
            DB::transaction(static fn() => DB::statement($sql));
            self::fail("The database let it happen: {$sql}");
        } catch (QueryException $e) {
            self::assertMatchesRegularExpression("/{$why}|permission denied/", $e->getMessage(), $sql);
        }
    }
}
